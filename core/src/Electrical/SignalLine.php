<?php

declare(strict_types=1);

namespace Magpie\Core\Electrical;

use Magpie\Core\Machine\Ability;
use Magpie\Core\Machine\Build;
use Magpie\Core\Machine\Fitted;
use Magpie\Core\Machine\Lead;
use Magpie\Core\Machine\Port;

/** A signal lead told apart: who speaks and who listens. */
final readonly class SignalLine
{
    private const LISTENS = ['switching_module.control', 'relay.coil', 'motor_driver.control', 'arc_source.torch'];

    private function __construct(
        public Lead $lead,
        public Fitted $from,
        public Port $out,
        public Fitted $to,
        public Port $in,
    ) {
    }

    public static function of(Build $build, Lead $lead): ?self
    {
        foreach ([[$lead->from, $lead->to], [$lead->to, $lead->from]] as [$one, $other]) {
            [$from, $to] = [$build->fitted($one->need), $build->fitted($other->need)];
            $out = $from->part->ports[$one->port] ?? null;
            $in = $to->part->ports[$other->port] ?? null;
            if ($from === null || $to === null || $out === null || $in === null) {
                return null;
            }
            $sensed = $from->part->can(Ability::Speaks) && $out->name === 'signal';
            $driven = in_array("{$to->part->family->key()}.{$in->name}", self::LISTENS, true);
            if ($sensed || $driven) {
                return new self($lead, $from, $out, $to, $in);
            }
        }

        return null;
    }

    /** What closes the signal: contact, sinking, sourcing, push-pull; null when it is not known. */
    public function output(): ?string
    {
        return $this->from->part->family->key() === 'limit_switch'
            ? 'contact'
            : $this->from->part->spec('output')?->choice();
    }
}
