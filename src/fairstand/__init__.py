"""The Fair Stand web application and command."""
