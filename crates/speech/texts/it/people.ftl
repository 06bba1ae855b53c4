## Persone: ruoli, nomi, password, ciò che si è consegnato.
role-owner = titolare
role-planner = chi pianifica
role-cook = cuoco
role-looker = chi guarda
role-device = tablet
role-crew-taps = squadra, tocca
role-crew-looks = squadra, guarda
role-program-reports = termometro o bilancia
role-program-looks = programma, guarda
role-program-taps = programma, inserisce

right-own = tutto, anche le persone
right-plan = piani, ricette, dispensa, e tocchi
right-tap = fasi, letture e tocchi al forno
right-look = vede tutto, non cambia niente
right-report = letture e pesi; non vede niente

name-unreadable = Un nome ha lettere che si possono leggere.
password-short = Una password ha { $least } caratteri o più; questa ne ha { $letters }.
password-long = Una password ha al massimo { $most } caratteri.
password-common = È una delle password che si provano per prime. Vanno bene più parole che non c’entrano fra loro.
