<?php

declare(strict_types=1);

namespace Magpie\Core\Advice;

use Magpie\Core\Inspection\Finding;
use Magpie\Core\Inspection\Inspection;
use Magpie\Core\Inspection\Verdict;

/** An inspection as text for a terminal, and as JSON in the shape of docs/format/inspection.md. */
final class InspectionReport
{
    public const VERSION = 1;

    public static function text(Inspection $inspection): string
    {
        $build = $inspection->survey->build;
        $lines = ["{$build->plan->name} ({$build->plan->kind})", self::tallyLine($inspection), ''];
        foreach ($inspection->findings as $finding) {
            array_push($lines, ...self::finding($finding), ...['']);
        }
        $lines[] = self::tallyLine($inspection);
        if ($build->forbidsPower()) {
            $lines[] = 'An open danger fault: this machine is not to be powered.';
        }
        $lines[] = 'A planning aid: local code and a licensed electrician decide.';

        return str_replace("\u{a0}", ' ', implode("\n", $lines))."\n";
    }

    public static function json(Inspection $inspection): string
    {
        return str_replace(
            "\u{a0}",
            ' ',
            json_encode(
                self::data($inspection),
                JSON_PRETTY_PRINT | JSON_UNESCAPED_UNICODE | JSON_UNESCAPED_SLASHES | JSON_THROW_ON_ERROR,
            ),
        )."\n";
    }

    /**
     * @return array<string, mixed>
     */
    public static function data(Inspection $inspection): array
    {
        return [
            'magpie_inspection' => self::VERSION,
            'build' => $inspection->survey->build->plan->name,
            'tally' => $inspection->tally(),
            'power_forbidden' => $inspection->survey->build->forbidsPower() || $inspection->worst() === Verdict::Danger,
            'findings' => array_map(static fn (Finding $f): array => $f->toArray(), $inspection->findings),
        ];
    }

    private static function tallyLine(Inspection $inspection): string
    {
        $parts = [];
        foreach ($inspection->tally() as $verdict => $count) {
            $parts[] = ucfirst($verdict)." {$count}";
        }

        return implode(' · ', $parts);
    }

    /**
     * @return list<string>
     */
    private static function finding(Finding $finding): array
    {
        $lines = [
            strtoupper($finding->verdict->value).
            "  {$finding->card->id} {$finding->card->title} · {$finding->subject->label}",
            "  {$finding->headline}",
        ];
        foreach ($finding->working as $step) {
            $lines[] = '    '.$step->text();
        }
        if ($finding->limit !== null) {
            $lines[] =
                "    Limit: {$finding->limit}".
                ($finding->margin === null ? '' : "; margin {$finding->margin->to('%')}");
        }
        foreach ($finding->inputs as $input) {
            $lines[] =
                "    Rests on: {$input->label} {$input->value()} [{$input->evidence->label()}]".
                ($input->source === null ? '' : " ({$input->source})");
        }
        $lines[] = "    Source: {$finding->card->source}";

        return $lines;
    }
}
