"""What the menus, keys and the Finder can do. Each module has `build`; they are found by themselves."""
