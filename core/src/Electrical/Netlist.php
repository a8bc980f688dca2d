<?php

declare(strict_types=1);

namespace Magpie\Core\Electrical;

use Magpie\Core\Machine\PortKind;
use Magpie\Core\Machine\Scenario;

/** A scenario as a netlist that the ngspice program reads, to be solved by somebody else's arithmetic. */
final readonly class Netlist
{
    public function __construct(private Circuits $circuits)
    {
    }

    /** Every node is named "n" and its number; comments say which port that is. */
    public function of(Scenario $scenario): string
    {
        $flow = $this->circuits->in($scenario);
        $topology = $this->circuits->topology;
        $lines = ["* {$this->plain($scenario->name)}", '* mains is taken as direct current of its effective value'];
        $asked = [];
        foreach ($topology->each() as $node => [$fitted, $port]) {
            $name = "{$fitted->need->ref}.{$port->name}";
            $held = $port->kind === PortKind::Source ? $this->circuits->heldBy($node) : null;
            if ($held !== null && $topology->sourceOf($node) === $node && $flow->whyUnsolved($node) === null) {
                $lines[] = "* n{$node} is {$name}";
                $lines[] = "V{$node} n{$node} 0 ".self::number($held->in('V'));
                foreach ($flow->demands($node) as $demand) {
                    $lines[] =
                        '* n'.
                        $demand->node.
                        ' is '.
                        $topology->needs[$demand->node].
                        '.'.
                        $topology->at($demand->node)[1]->name;
                    if ($demand->resistance !== null) {
                        $lines[] = "RL{$demand->node} n{$demand->node} 0 ".self::number($demand->resistance->in('Ω'));
                    } elseif ($demand->power?->isPositive() === true) {
                        $lines[] =
                            "BL{$demand->node} n{$demand->node} 0 I=".
                            self::number($demand->power->in('W')).
                            "/v(n{$demand->node})";
                        // Of its two voltages the upper one is meant, at which it runs.
                        $lines[] = ".nodeset v(n{$demand->node})=".self::number($held->in('V'));
                    } elseif ($demand->current !== null && $demand->current->isPositive()) {
                        $lines[] = "IL{$demand->node} n{$demand->node} 0 ".self::number($demand->current->in('A'));
                    }
                    $asked["n{$demand->node}"] = true;
                }
            }
        }
        foreach ($topology->joints as $index => $joint) {
            if ($topology->sourceOf($joint->a) !== null && $flow->whyUnsolved($joint->a) === null) {
                $lines[] = '* '.($joint->lead ?? 'through '.$topology->needs[$joint->b]);
                $lines[] =
                    "R{$index} n{$joint->a} n{$joint->b} ".
                    self::number($this->circuits->resistanceOf($index)->in('Ω'));
            }
        }
        $print =
            $asked === []
                ? ''
                : 'print '.
                    implode(' ', array_map(static fn (string $n): string => "v({$n})", array_keys($asked))).
                    "\n";

        return implode("\n", $lines)."\n.op\n.control\nrun\n{$print}quit\n.endc\n.end\n";
    }

    private function plain(string $text): string
    {
        return (string) preg_replace('/[^\x20-\x7e]/', '?', $text);
    }

    private static function number(float $value): string
    {
        return sprintf('%.9g', $value);
    }
}
