<?php

declare(strict_types=1);

namespace Magpie\Core\Advice;

use Magpie\Core\Inspection\Finding;
use Magpie\Core\Inspection\Inspection;
use Magpie\Core\Inspection\Verdict;
use Magpie\Core\Machine\Doubt;
use Magpie\Core\Machine\Doubts;

/** An inspection as text for a terminal, and as JSON in the shape of docs/format/inspection.md. */
final class InspectionReport
{
    public const VERSION = 2;

    public static function text(Inspection $inspection): string
    {
        $build = $inspection->survey->build;
        $lines = ["{$build->plan->name} ({$build->plan->kind})", self::tallyLine($inspection), ''];
        foreach (Doubts::aboutAll($build) as $doubt) {
            $lines[] = "  ?  {$build->parts[$doubt->part]->name}: {$doubt->question}";
        }
        $causes = Causes::of($inspection);
        foreach ($causes as $i => $cause) {
            $lines[] = sprintf('%3d  %-8s  %s', $i + 1, $cause->verdict()->label(), $cause->says);
        }
        foreach (self::accepted($inspection) as $one) {
            $until = $one['until'] === null ? '' : ", until {$one['until']}";
            $lines[] = "  ✓  {$one['finding']} accepted by {$one['who']}{$until}: {$one['why']} ({$one['headline']})";
        }
        if ($causes !== []) {
            array_push($lines, '', 'What they rest on', '');
        }
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
            'causes' => array_map(static fn (Cause $c): array => $c->toArray(), Causes::of($inspection)),
            'doubts' => array_map(
                static fn (Doubt $d): array => $d->toArray(),
                Doubts::aboutAll($inspection->survey->build),
            ),
            'later' => array_map(static fn (Finding $f): string => $f->key(), $inspection->later()),
            'accepted' => self::accepted($inspection),
            'findings' => array_map(static fn (Finding $f): array => $f->toArray(), $inspection->findings),
        ];
    }

    /**
     * @return list<array{ref: string, finding: string, verdict: string, headline: string, why: string, who: string, until: string|null}>
     */
    public static function accepted(Inspection $inspection): array
    {
        $accepted = [];
        foreach ($inspection->findings as $finding) {
            $by = $inspection->accepted[$finding->key()] ?? null;
            if ($by !== null) {
                $accepted[] = [
                    'ref' => $by->ref,
                    'finding' => $finding->key(),
                    'verdict' => $finding->verdict->value,
                    'headline' => $finding->headline,
                    'why' => $by->why,
                    'who' => $by->who,
                    'until' => $by->until,
                ];
            }
        }

        return $accepted;
    }

    private static function tallyLine(Inspection $inspection): string
    {
        $parts = [];
        foreach ($inspection->tally() as $verdict => $count) {
            $parts[] = ucfirst($verdict)." {$count}";
        }
        foreach (
            ['later' => count($inspection->later()), 'accepted' => count($inspection->accepted)] as $name => $count
        ) {
            if ($count > 0) {
                $parts[] = "{$name} {$count}";
            }
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
