<?php

declare(strict_types=1);

// Pages of other origins have no business here.
return ['paths' => [], 'allowed_methods' => [], 'allowed_origins' => [], 'allowed_origins_patterns' => [], 'allowed_headers' => [], 'exposed_headers' => [], 'max_age' => 0, 'supports_credentials' => false];
