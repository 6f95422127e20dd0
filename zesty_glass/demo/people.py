"""Who may sign in to the demo."""

EMAIL, PASSWORD = "perrin@larkspout.example", "chalk and cheese"
MANAGER_EMAIL = "sunniva@larkspout.example"
FITTER_EMAIL, FITTER = "ansgar@larkspout.example", "Ansgar Tolleby"
