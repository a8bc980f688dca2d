<?php

declare(strict_types=1);

/*
 * Writes anew what core/tests/Proving/WorkedTest holds the core to. Read the difference before you commit it: it is what
 * your change changes for a builder.
 *
 *   php tests/worked.php
 */

use Magpie\Core\Tests\Proving\Worked;

require dirname(__DIR__).'/vendor/autoload.php';

foreach (Worked::texts() as $name => $text) {
    file_put_contents(Worked::FOLDER."/{$name}.txt", $text());
}
