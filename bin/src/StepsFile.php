<?php

declare(strict_types=1);

namespace Magpie\Bin;

use Magpie\Core\Planning\Derivation;

/** The steps that follow from a build file, from the shell: docs/format/steps.md describes the shape. */
final class StepsFile
{
    private const VERSION = 1;

    private const USAGE = 'usage: bin/magpie steps FILE [--format json]';

    /**
     * 0 when everything goes in at a step and nothing is short, 1 when something does not, 2 when the file cannot be read.
     *
     * @param  list<string>  $arguments
     */
    public function run(array $arguments): int
    {
        [$file, $options] = FromFile::arguments($arguments, ['format'], self::USAGE);
        $format = $options['format'] ?? 'text';
        if (! in_array($format, ['text', 'json'], true)) {
            throw new Failure(self::USAGE, 2);
        }
        $derived = new Derivation(FromFile::read($file, $format, 'magpie_steps', self::VERSION));
        $format === 'json'
            ? FromFile::print(['magpie_steps' => self::VERSION] + $derived->toArray())
            : print self::text($derived);

        return $derived->unplaced === [] && $derived->short === [] ? 0 : 1;
    }

    private static function text(Derivation $derived): string
    {
        $data = $derived->toArray();
        $text = sprintf(
            "%s: %d steps, %.1f h for a practised builder\n",
            $data['build'],
            count($derived->steps),
            $data['hours'],
        );
        $section = null;
        foreach ($derived->steps as $i => $step) {
            if ($step->section() !== $section) {
                $section = $step->section();
                $text .= "\n{$section}\n";
            }
            $text .= sprintf("  %3d  %s\n", $i + 1, $step->title);
            foreach ($step->tools === [] ? [] : [implode(', ', $step->tools)] as $tools) {
                $text .= "       with {$tools}\n";
            }
            foreach ($step->notes as $note) {
                $text .= "       {$note}\n";
            }
            if ($step->check !== null) {
                $text .= "       measure {$step->check['what']}: {$step->check['nominal']} ± {$step->check['tolerance']}\n";
            }
        }
        foreach ($derived->short as $need => $pieces) {
            $text .= "\n  short: {$pieces} × {$need}";
        }
        $text .= $derived->unplaced === [] ? '' : "\n";
        foreach ($derived->unplaced as $row) {
            $text .= "  goes in nowhere: {$row['pieces']} × {$row['role']}: {$row['why']}\n";
        }

        return $text."\nA planning aid: local code and a licensed electrician decide what is mains.\n";
    }
}
