<?php

declare(strict_types=1);

namespace Magpie\Core\Inspection;

use Magpie\Core\Electrical\ElectricalRules;
use Magpie\Core\Machine\Build;
use Magpie\Core\Mechanical\MechanicalRules;
use Magpie\Core\Money\SupplyRules;
use Magpie\Core\Site\SiteRules;
use Magpie\Core\Thermal\ThermalRules;

/**
 * Puts every check to every subject of a build. It knows no check by name.
 */
final readonly class Inspector
{
    /**
     * @param  list<Check>  $checks
     */
    public function __construct(public array $checks)
    {
    }

    /** With every rule of every trade. */
    public static function standard(): self
    {
        static $standard = null;

        return $standard ??= new self([...ElectricalRules::all(), ...MechanicalRules::all(), ...ThermalRules::all(), ...SiteRules::all(), ...SupplyRules::all()]);
    }

    public function inspect(Build $build): Inspection
    {
        $bench = new Bench($build);
        $findings = [];
        foreach ($this->checks as $check) {
            $card = $check->card();
            foreach ($check->subjects($bench) as $subject) {
                $findings[] = $this->ask($check, new Inquiry($build, $card, $subject), $bench);
            }
        }

        return new Inspection($bench, $findings);
    }

    /** One finding again, by its key, without the rest; null when the build has no such subject. */
    public function find(Build $build, string $key): ?Finding
    {
        return $this->again($build, [$key])[$key] ?? null;
    }

    /**
     * Some findings again, without the rest; those whose subject the build has not are left out.
     *
     * @param  list<string>  $keys
     * @return array<string, Finding> by key
     */
    public function again(Build $build, array $keys): array
    {
        $wanted = [];
        foreach ($keys as $key) {
            [$id, $ref] = explode('/', $key, 2) + [1 => ''];
            $wanted[$id][$ref] = true;
        }
        $bench = new Bench($build);
        $found = [];
        foreach ($this->checks as $check) {
            $card = $check->card();
            foreach (isset($wanted[$card->id]) ? $check->subjects($bench) : [] as $subject) {
                if (isset($wanted[$card->id][$subject->ref])) {
                    $finding = $this->ask($check, new Inquiry($build, $card, $subject), $bench);
                    $found[$finding->key()] = $finding;
                }
            }
        }

        return $found;
    }

    private function ask(Check $check, Inquiry $inquiry, Bench $bench): Finding
    {
        try {
            return $check->judge($inquiry, $bench);
        } catch (InputMissing) {
            return $inquiry->unproven();
        }
    }
}
