<?php

declare(strict_types=1);

namespace Magpie\Core\Tests\Proving;

use Closure;
use Magpie\Core\Assembly\Rules;
use Magpie\Core\Electrical\LeadProposal;
use Magpie\Core\Electrical\LeadProposals;
use Magpie\Core\Electrical\PortAllocation;
use Magpie\Core\Electrical\Stops;
use Magpie\Core\Electrical\Views\PowerLedger;
use Magpie\Core\Firmware\SettingsAudit;
use Magpie\Core\Format\BuildFile;
use Magpie\Core\Inspection\Finding;
use Magpie\Core\Inspection\Inspection;
use Magpie\Core\Inspection\Survey;
use Magpie\Core\Inspection\WorkingStep;
use Magpie\Core\Machine\Build;
use Magpie\Core\Mechanical\Views\JointLedger;
use Magpie\Core\Money\MoneyLedger;
use Magpie\Core\Motion\Views\MotionLedger;
use Magpie\Core\Routes\RouteComparison;
use Magpie\Core\Routes\TrueCost;
use Magpie\Core\Thermal\Views\HeatLedger;

/**
 * All that is worked out of the samples of the checks and of the demo's machines, a line each. Whether it is right is for
 * the other tests; what a change of the core changes in it can be read as a difference of these lines.
 */
final class Worked
{
    public const FOLDER = __DIR__.'/worked';

    /**
     * @return array<string, Closure(): string> by the name of its file
     */
    public static function texts(): array
    {
        $demo = dirname(__DIR__, 3).'/demo';
        $texts = ['examples' => self::examples(...), 'leads' => self::leads(...)];
        foreach (['dunlin', 'linnet', 'plover'] as $name) {
            $texts[$name] = static fn (): string => self::machine(
                BuildFile::read((string) file_get_contents("{$demo}/{$name}.json")),
            );
        }

        return $texts;
    }

    private static function examples(): string
    {
        $lines = [];
        $inspector = Rules::inspector();
        foreach ($inspector->checks as $check) {
            foreach (
                ['trips' => $check->examples()->tripping(), 'holds' => $check->examples()->holding()] as $name => $build
            ) {
                $lines[] = "== {$check->card()->id} {$name}";
                foreach ($inspector->inspect($build)->findings as $finding) {
                    if ($finding->card->id === $check->card()->id) {
                        array_push($lines, ...self::finding($finding));
                    }
                }
            }
        }

        return implode("\n", $lines)."\n";
    }

    /** What is proposed for the machines of the proving ground where nobody has drawn a lead yet, and which channel takes what. */
    private static function leads(): string
    {
        $lines = [];
        foreach (Machines::all() as $name => $machine) {
            $survey = new Survey(BuildFile::build(['leads' => []] + $machine()->file()));
            $found = LeadProposals::of($survey);
            $lines[] = "== {$name}";
            foreach ($found['leads'] as $lead) {
                $row = json_encode(
                    self::row($lead),
                    JSON_UNESCAPED_UNICODE | JSON_UNESCAPED_SLASHES | JSON_THROW_ON_ERROR,
                );
                $lines[] = "{$lead->from->text()} > {$lead->to->text()} {$row}";
            }
            foreach ($found['open'] as $open) {
                $lines[] = "{$open['port']} has no far end: {$open['why']}";
            }
            foreach (PortAllocation::of($survey)->found as $wish => $channel) {
                $lines[] = "{$wish} on {$channel}";
            }
        }

        return implode("\n", $lines)."\n";
    }

    /**
     * @return array<string, mixed> of a proposal, the lead it would be and why
     */
    private static function row(LeadProposal $lead): array
    {
        $row = $lead->toArray();
        $entry = $row['entry'];
        unset($row['entry'], $row['from'], $row['to'], $entry['from'], $entry['to']);

        return array_filter([...$row, ...$entry], static fn (mixed $one): bool => $one !== null && $one !== []);
    }

    private static function machine(Build $build): string
    {
        $inspection = Rules::inspector()->inspect($build);
        $lines = ['== findings'];
        foreach ($inspection->findings as $finding) {
            array_push($lines, ...self::finding($finding));
        }
        foreach (self::ledgers($build, $inspection) as $name => $ledger) {
            array_push($lines, "== {$name}", ...self::flat($ledger));
        }

        return implode("\n", $lines)."\n";
    }

    /**
     * @return array<string, array<array-key, mixed>>
     */
    private static function ledgers(Build $build, Inspection $inspection): array
    {
        $survey = new Survey($build);

        return [
            'money' => (new MoneyLedger($build))->toArray(),
            'true cost' => (new TrueCost($build))->toArray(),
            'routes' => (new RouteComparison($build))->toArray(),
            'power' => (new PowerLedger($survey))->toArray(),
            'stops' => Stops::of($survey)->toArray(),
            'motion' => (new MotionLedger($survey))->toArray(),
            'settings' => SettingsAudit::of($survey)->toArray(),
            'joints' => (new JointLedger($inspection))->toArray(),
            'heat' => (new HeatLedger($inspection))->toArray(),
        ];
    }

    /**
     * @return list<string>
     */
    private static function finding(Finding $finding): array
    {
        return [
            implode(
                '  ',
                array_filter(
                    [
                        $finding->key(),
                        $finding->verdict->value.
                        ($finding->otherwise === null ? '' : " (otherwise {$finding->otherwise->value})"),
                        $finding->headline,
                        $finding->margin === null ? null : sprintf('%.2f %%', 100 * $finding->margin->in('')),
                        $finding->scenario,
                        $finding->could === null ? null : "may be {$finding->could->value}",
                        $finding->later === null ? null : "once {$finding->later->value}",
                    ],
                    static fn (?string $one): bool => $one !== null,
                ),
            ),
            ...array_map(static fn (WorkingStep $s): string => "    {$s->text()}", $finding->working),
            ...array_map(static fn (string $one): string => "    ? {$one}", $finding->missing),
        ];
    }

    /**
     * A row of plain values in a line, the rest under the names of what it is in.
     *
     * @param  array<array-key, mixed>  $values
     * @return list<string>
     */
    private static function flat(array $values, string $under = ''): array
    {
        $lines = [];
        $plain = [];
        foreach ($values as $key => $value) {
            if (is_array($value) && $value !== []) {
                array_push($lines, ...self::flat($value, "{$under} {$key}"));
            } else {
                $plain[$key] = $value;
            }
        }
        $row = json_encode($plain, JSON_UNESCAPED_UNICODE | JSON_UNESCAPED_SLASHES | JSON_THROW_ON_ERROR);

        return $plain === [] ? $lines : [ltrim("{$under}: {$row}"), ...$lines];
    }
}
