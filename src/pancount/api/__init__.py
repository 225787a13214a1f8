"""The web: thin routers over the core and the store, and the built screens."""
