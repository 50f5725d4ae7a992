package score

// Option is one of the values of a property that has only a few, and how it is shown.
type Option struct {
	Value string `json:"value"`
	// Label is what it is called on the screen.
	Label string `json:"label"`
	// Help says in a sentence what it does.
	Help string `json:"help,omitempty"`
}

// options are all values of a property, in the order in which to offer them.
type options[T ~string] []struct {
	value       T
	label, help string
}

func (c options[T]) values() []T {
	values := make([]T, len(c))
	for i := range c {
		values[i] = c[i].value
	}
	return values
}

func (c options[T]) list() []Option {
	list := make([]Option, len(c))
	for i, one := range c {
		list[i] = Option{string(one.value), one.label, one.help}
	}
	return list
}

// option returns one of the values as an option.
func (c options[T]) option(value T) Option {
	for _, one := range c.list() {
		if one.Value == string(value) {
			return one
		}
	}
	return Option{Value: string(value), Label: string(value)}
}
