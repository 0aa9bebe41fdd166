"""Prop: supports proposed, set out together, looked at for strength and for what they hold."""
