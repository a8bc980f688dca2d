<?php

declare(strict_types=1);

namespace App\Imports;

use RuntimeException;

final class ImportCancelled extends RuntimeException
{
}
