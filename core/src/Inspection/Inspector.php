<?php

declare(strict_types=1);

namespace Magpie\Core\Inspection;

use Magpie\Core\Electrical\ElectricalRules;
use Magpie\Core\Machine\Build;
use Magpie\Core\Mechanical\MechanicalRules;

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

        return $standard ??= new self([...ElectricalRules::all(), ...MechanicalRules::all()]);
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
        [$id, $ref] = explode('/', $key, 2) + [1 => ''];
        $bench = new Bench($build);
        foreach ($this->checks as $check) {
            if ($check->card()->id !== $id) {
                continue;
            }
            foreach ($check->subjects($bench) as $subject) {
                if ($subject->ref === $ref) {
                    return $this->ask($check, new Inquiry($build, $check->card(), $subject), $bench);
                }
            }
        }

        return null;
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
