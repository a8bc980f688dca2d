<?php

declare(strict_types=1);

// Writes the docs that follow from the code: every check with its source, every family with its sheet and ports.

use Magpie\Core\Assembly\Recorded;
use Magpie\Core\Assembly\Rules;
use Magpie\Core\Choice\Preference;
use Magpie\Core\Families\Catalogue;
use Magpie\Core\Format\BuildFile;
use Magpie\Core\Machine\PortSheet;
use Magpie\Core\Reference\Terms;

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

// What each check reads, recorded while it judges its samples and the demo's machines.
$machines = array_map(
    static fn (string $file) => BuildFile::read((string) file_get_contents($file)),
    glob("{$root}/demo/*.json") ?: [],
);
$reads = Recorded::anew($machines);
$table = "<?php\n\ndeclare(strict_types=1);\n\n/*\n * Specs each check reads, check → \"family.key\": recorded while it judges its samples and the demo's machines.\n * Written by bin/magpie docs.\n */\nreturn [\n";
foreach ($reads as $id => $specs) {
    $table .= "    '{$id}' => [".($specs === [] ? '' : "\n        '".implode("',\n        '", $specs)."',\n    ")."],\n";
}
file_put_contents("{$root}/core/reference/reads.php", "{$table}];\n");
$readBy = [];
foreach ($reads as $id => $specs) {
    foreach ($specs as $spec) {
        $readBy[$spec][] = $id;
    }
}

// A key that no trade's code names is read by none.
$trades = '';
foreach (['Electrical', 'Firmware', 'Mechanical', 'Money', 'Motion', 'Scope', 'Site', 'Thermal'] as $trade) {
    foreach (new RecursiveIteratorIterator(new RecursiveDirectoryIterator("{$root}/core/src/{$trade}")) as $file) {
        $trades .= $file->isFile() ? (string) file_get_contents($file->getPathname()) : '';
    }
}
$families = "# Families, their sheets and ports\n\nWritten by `bin/magpie docs` from the code.\n\n## Any port\n\n";
$line = static fn ($f): string => "- `{$f->key}` {$f->label}".($f->dimension === null ? " ({$f->kind->value}".($f->choices === [] ? '' : ': '.implode(', ', $f->choices)).')' : " ({$f->dimension->label()}".($f->unit === '' ? '' : ", {$f->unit}").($f->kind->value === 'range' ? ', from … to' : '').')').($f->help === '' ? '' : ". {$f->help}")."\n";
foreach (PortSheet::fields() as $field) {
    $families .= $line($field);
}
foreach (Catalogue::standard()->all() as $family) {
    $families .= "\n## `{$family->key()}` {$family->title()}\n\n";
    $lent = array_merge(...array_map(static fn ($p): array => array_values($p->lends), $family->ports()) ?: [[]]);
    $compared = array_merge(Preference::ALWAYS, ...$family->ratios());
    foreach ($family->sheet() as $field) {
        $by = $readBy["{$family->key()}.{$field->key}"] ?? [];
        $families .= rtrim($line($field), "\n").match (true) {
            $by !== [] => ' — read by '.implode(', ', $by),
            $field->better !== null || in_array($field->key, $compared, true) => ' — for comparing',
            ! in_array($field->key, $lent, true) && ! str_contains($trades, "'{$field->key}'") => ' — kept, read by no check',
            default => '',
        }."\n";
    }
    foreach ($family->ports() as $port) {
        $families .= "- port `{$port->name}`: {$port->kind->value}".($port->mains ? ', mains' : '').($port->fedFrom === null ? '' : ", fed from `{$port->fedFrom}`")."\n";
    }
}
file_put_contents("{$root}/docs/format/families.md", $families);

$terms = "# Words of the trade\n\nWritten by `bin/magpie docs` from core/reference/terms.php; the interface shows the same sentences. Common practice, no source, where a figure is named.\n\n## The checks\n\n| Check | What it is | How to find out |\n|---|---|---|\n";
foreach (Rules::inspector()->checks as $check) {
    [$means, $find] = Terms::ofCheck($check->card()->id) ?? ['', ''];
    $terms .= '| '.implode(' | ', array_map($cell, ["{$check->card()->id} {$check->card()->title}", $means, $find]))." |\n";
}
$terms .= "\n## Words\n\n| Word | What it is | How to find out |\n|---|---|---|\n";
foreach (Terms::ofTheTrade() as $word => [$means, $find]) {
    $terms .= '| '.implode(' | ', array_map($cell, [$word, $means, $find]))." |\n";
}
file_put_contents("{$root}/docs/terms.md", $terms);
echo "docs/checks.md, docs/terms.md and docs/format/families.md are written.\n";
