## Fra i valori
and = e
to = –
just = { $value }
