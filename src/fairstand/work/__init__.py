"""Long work: background tasks with a stage, progress and cancel."""
