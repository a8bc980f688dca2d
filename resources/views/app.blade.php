<!doctype html>
<html lang="en-GB">
<head>
    <meta charset="utf-8">
    <meta name="viewport" content="width=device-width, initial-scale=1">
    <meta name="color-scheme" content="light dark">
    <title>Frugal Magpie</title>
    <link rel="icon" href="/mark.svg" type="image/svg+xml">
    <link rel="manifest" href="/app.webmanifest">
    <link rel="apple-touch-icon" href="/mark-192.png">
    <meta name="theme-color" content="#F5F3EE">
    @vite('resources/ui/main.ts')
</head>
<body>
    <div id="app"></div>
    <noscript>Frugal Magpie needs JavaScript switched on.</noscript>
</body>
</html>
