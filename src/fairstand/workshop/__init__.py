"""The workshop: the maker's own machines, materials, processes and tables of habits."""
