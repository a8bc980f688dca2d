<?php

declare(strict_types=1);

// Sent with every answer, pages, data and files alike. No script but the application's own runs, and nobody frames it.
// Styles may stand in the page: the component library writes its theme there.
return [
    'Content-Security-Policy' => "default-src 'self'; script-src 'self'; style-src 'self' 'unsafe-inline'; img-src 'self' data: blob:; font-src 'self'; connect-src 'self'; "
        ."worker-src 'self' blob:; media-src 'self' blob:; object-src 'none'; base-uri 'none'; form-action 'self'; frame-ancestors 'none'",
    'X-Content-Type-Options' => 'nosniff',
    'X-Frame-Options' => 'DENY',
    'Referrer-Policy' => 'same-origin',
    'Cross-Origin-Opener-Policy' => 'same-origin',
    'Cross-Origin-Resource-Policy' => 'same-origin',
    'Permissions-Policy' => 'camera=(self), microphone=(self), geolocation=(), payment=(), usb=()',
];
