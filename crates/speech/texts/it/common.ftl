## Between values
and = and
to = to
just = { $value }
