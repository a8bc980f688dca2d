<?php

declare(strict_types=1);

namespace Tests\Architecture;

use PHPat\Selector\Selector;
use PHPat\Selector\SelectorInterface;
use PHPat\Test\Attributes\TestRule;
use PHPat\Test\Builder\Rule;
use PHPat\Test\PHPat;

/** Which way the arrows point: HTTP → app → core, and the core knows nothing of either. Checked by phpstan. */
final class Arrows
{
    /** The floors of the core from the ground up; see docs/decisions/0016-floors.md. */
    private const FLOORS = [
        ['Quantity'],
        ['Reference', 'Straightness'],
        ['Machine'],
        ['Families', 'Library'],
        ['Format'],
        ['Inspection', 'PartsList', 'Printing', 'Simulation', 'Tuning'],
        ['Electrical', 'Money', 'Scope', 'Site', 'Work'],
        ['Buying', 'Motion', 'Routes', 'Thermal'],
        ['Layout'],
        ['Firmware', 'Mechanical', 'Planning'],
        ['Choice', 'Commissioning', 'Programs', 'Service'],
        ['Remedies'],
        ['Advice'],
        ['Book'],
        ['Assembly'],
    ];

    private const TRADES = ['Electrical', 'Firmware', 'Layout', 'Mechanical', 'Money', 'Motion', 'Site', 'Thermal'];

    #[TestRule]
    public function the_core_knows_no_framework(): Rule
    {
        return PHPat::rule()
            ->classes(Selector::inNamespace('Magpie\Core'))
            ->shouldNotDependOn()
            ->classes(
                Selector::inNamespace('Illuminate'),
                Selector::inNamespace('Laravel'),
                Selector::inNamespace('App'),
                Selector::inNamespace('Symfony'),
                Selector::inNamespace('Carbon'),
            )
            ->because('the rules of the job are tested alone');
    }

    /**
     * Every floor of the core stands on those below it: no namespace knows one of its own floor or above.
     *
     * @return iterable<Rule>
     */
    #[TestRule]
    public function floors_stand_on_those_below(): iterable
    {
        $above = array_map(self::namespaced(...), array_merge(...self::FLOORS));
        foreach (self::FLOORS as $floor) {
            $above = array_slice($above, count($floor));
            foreach ($floor as $name) {
                $others = array_map(self::namespaced(...), array_values(array_diff($floor, [$name])));
                if ($above !== [] || $others !== []) {
                    yield PHPat::rule()
                        ->classes(self::namespaced($name))
                        ->shouldNotDependOn()
                        ->classes(...$above, ...$others)
                        ->because("{$name} stands below these, or beside them");
                }
            }
        }
    }

    /**
     * Within a trade: what is worked out knows no rule, and neither knows how it is shown.
     *
     * @return iterable<Rule>
     */
    #[TestRule]
    public function a_model_knows_neither_its_rules_nor_its_views(): iterable
    {
        foreach (self::TRADES as $trade) {
            $in = "Magpie\\Core\\{$trade}";
            yield PHPat::rule()
                ->classes(Selector::inNamespace($in))
                ->excluding(Selector::inNamespace("{$in}\\Rules"), Selector::inNamespace("{$in}\\Views"))
                ->shouldNotDependOn()
                ->classes(Selector::inNamespace("{$in}\\Rules"), Selector::inNamespace("{$in}\\Views"))
                ->because('what is worked out serves rules and views alike');
            yield PHPat::rule()
                ->classes(Selector::inNamespace("{$in}\\Rules"), Selector::inNamespace("{$in}\\Views"))
                ->excluding(Selector::inNamespace("{$in}\\Views"))
                ->shouldNotDependOn()
                ->classes(Selector::inNamespace("{$in}\\Views"))
                ->because('a rule judges, a view shows');
        }
    }

    private static function namespaced(string $name): SelectorInterface
    {
        return Selector::inNamespace("Magpie\\Core\\{$name}");
    }

    #[TestRule]
    public function persistence_knows_no_request(): Rule
    {
        return PHPat::rule()
            ->classes(
                Selector::inNamespace('App\Builds'),
                Selector::inNamespace('App\Imports'),
                Selector::inNamespace('App\Models'),
            )
            ->shouldNotDependOn()
            ->classes(Selector::inNamespace('App\Http'), Selector::inNamespace('Illuminate\Http'))
            ->because('HTTP calls the app, not the other way round');
    }
}
