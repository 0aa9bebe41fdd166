"""The reading interfaces, described as OpenAPI."""
