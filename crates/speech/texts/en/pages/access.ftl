access-here-by-a-link = here by a link
access-here-to-look-on = here to look on
access-at-work-here-and-this = at work here, and this is decided by others
access-not-yours-to-do = Not yours to do
access-you-are-whoever-owns-the = You are { $is }. Whoever owns the kitchen can give you more to do, under People. Nothing was changed.
access-sign-in-to-go-on = Sign in to go on.
access-all-that-you-entered-is = All that you entered is held on this page: sign in, and send it.
access-your-sign-in-has-ended = Your sign-in has ended
