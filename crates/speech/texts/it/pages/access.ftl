access-here-by-a-link = qui con un link
access-here-to-look-on = qui per guardare
access-at-work-here-and-this = qui al lavoro, e questo lo decidono altri
access-not-yours-to-do = Non tocca a te
access-you-are-whoever-owns-the = Sei { $is }. Il titolare della cucina può darti più compiti, alla voce Persone. Non è cambiato nulla.
access-sign-in-to-go-on = Accedi per continuare.
access-all-that-you-entered-is = Tutto ciò che hai inserito resta su questa pagina: accedi e invialo.
access-your-sign-in-has-ended = Il tuo accesso è scaduto
