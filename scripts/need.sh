#!/usr/bin/env bash
# Says in one line which tool is missing: need.sh TOOL WHAT_TO_DO
command -v "$1" >/dev/null || { echo "Jettyfog needs $1: $2" >&2; exit 1; }
