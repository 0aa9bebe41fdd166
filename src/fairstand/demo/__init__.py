"""The invented pieces of the Reedmere reserve workshop."""
