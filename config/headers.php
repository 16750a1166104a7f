<?php

declare(strict_types=1);

// Carried by every answer, of the application and of files served as they are.
return [
    'Content-Security-Policy' => "default-src 'self'; img-src 'self' data: blob:; style-src 'self' 'unsafe-inline'; font-src 'self' data:; "
        ."worker-src 'self' blob:; frame-ancestors 'none'; base-uri 'self'; form-action 'self'; object-src 'none'",
    'X-Content-Type-Options' => 'nosniff',
    'Referrer-Policy' => 'same-origin',
    'X-Frame-Options' => 'DENY',
    'Cross-Origin-Opener-Policy' => 'same-origin',
];
