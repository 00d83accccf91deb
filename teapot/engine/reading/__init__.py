"""Reading: text -> tokens -> syntax tree, and the tree written out again."""
