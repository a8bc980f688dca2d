<?php

declare(strict_types=1);

// Writes the docs that follow from the code: every check with its source, every family with its sheet and ports.

use Magpie\Core\Assembly\Rules;
use Magpie\Core\Families\Catalogue;
use Magpie\Core\Machine\PortSheet;

$root = dirname(__DIR__);
require "{$root}/vendor/autoload.php";

$cell = static fn (string $text): string => str_replace(['|', "\u{a0}"], ['\\|', ' '], $text);
$checks = "# The checks\n\nWritten by `bin/magpie docs` from the code. A threshold is a default; the builder may change it with a reason, which is kept.\n\n"
    ."| Id | Check | The question | Thresholds | Passes on | Source |\n|---|---|---|---|---|---|\n";
foreach (Rules::inspector()->checks as $check) {
    $card = $check->card();
    $thresholds = [];
    foreach ($card->thresholds as $key => $threshold) {
        $thresholds[] = "`{$key}` {$threshold->default}: {$threshold->meaning}";
    }
    $checks .= '| '.implode(' | ', array_map($cell, [$card->id, $card->title, $card->question, implode('; ', $thresholds), $card->asks->label().' or better', $card->source]))." |\n";
}
file_put_contents("{$root}/docs/checks.md", $checks);

$families = "# Families, their sheets and ports\n\nWritten by `bin/magpie docs` from the code.\n\n## Any port\n\n";
$line = static fn ($f): string => "- `{$f->key}` {$f->label}".($f->dimension === null ? " ({$f->kind->value}".($f->choices === [] ? '' : ': '.implode(', ', $f->choices)).')' : " ({$f->dimension->label()}".($f->unit === '' ? '' : ", {$f->unit}").($f->kind->value === 'range' ? ', from … to' : '').')').($f->help === '' ? '' : ". {$f->help}")."\n";
foreach (PortSheet::fields() as $field) {
    $families .= $line($field);
}
foreach (Catalogue::standard()->all() as $family) {
    $families .= "\n## `{$family->key()}` {$family->title()}\n\n";
    foreach ($family->sheet() as $field) {
        $families .= $line($field);
    }
    foreach ($family->ports() as $port) {
        $families .= "- port `{$port->name}`: {$port->kind->value}".($port->mains ? ', mains' : '').($port->fedFrom === null ? '' : ", fed from `{$port->fedFrom}`")."\n";
    }
}
file_put_contents("{$root}/docs/format/families.md", $families);
echo "docs/checks.md and docs/format/families.md are written.\n";
