module jettyfog

go 1.26.8

require (
	github.com/stretchr/testify v1.12.1
	gitlab.com/gomidi/midi/v2 v2.3.22
	gonum.org/v1/gonum v0.17.0
	pgregory.net/rapid v1.3.0
)

require go.yaml.in/yaml/v3 v3.0.5 // indirect
