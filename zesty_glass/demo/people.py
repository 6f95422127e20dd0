"""Who may sign in to the demo."""

EMAIL, PASSWORD = "perrin@larkspout.example", "chalk and cheese"
MANAGER_EMAIL = "sunniva@larkspout.example"
FITTER_EMAIL, FITTER = "ansgar@larkspout.example", "Ansgar Tolleby"
#: what each of them is for
TO_TRY = (
    (EMAIL, "consultant: visits, tests, proposals"),
    (MANAGER_EMAIL, "manager: prices, limits, people, Monday"),
    (FITTER_EMAIL, "fitter: jobs, steps, proof, care"),
)
