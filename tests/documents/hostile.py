"""Texts that try to get out of where they are shown."""

TEXTS = (
    "<script>alert(1)</script>",
    '"><img src=x onerror=alert(1)>',
    '</style><link rel=attachment href="file:///etc/passwd">',
    '</text></svg><a rel=attachment href="file:///etc/passwd">x</a>',
    "<style>@import url(file:///etc/passwd)</style>",
    "url(file:///etc/passwd)",
    "{{ 7*7 }}{% include '/etc/passwd' %}",
    "a\r\nBcc: everybody@elsewhere.example",
    "a\r\nEND:VEVENT\r\nBEGIN:VALARM\r\nACTION:AUDIO",
    '=HYPERLINK("http://elsewhere.example")',
    " \t=1+1",
    "first\n=1+1",
    "\u200b@SUM(1)",
    "\uff1d1+1",
    "\\000a } body { display: none } /*",
    "\u202etxt.exe",
)
