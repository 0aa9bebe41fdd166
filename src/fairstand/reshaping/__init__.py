"""Reshape: small changes of shape, tried and made."""
