<?php

declare(strict_types=1);

namespace Magpie\Core\Layout;

use Magpie\Core\Inspection\Survey;
use Magpie\Core\Quantity\Quantity;

/**
 * Bench, door, room and the room kept free around the machine, as boxes about its outline: to see how large it is beside them.
 * Where in the room it will stand is nobody's business here; M02 judges.
 */
final class Surroundings
{
    /**
     * @return array<'bench'|'door'|'service'|'room', Box> of what is known, the machine in their middle, from the floor it stands on
     */
    public static function of(Survey $survey): array
    {
        $machine = Layout::of($survey)->outline;
        if ($machine === null) {
            return [];
        }
        $site = $survey->build->site;
        $free = self::mm($site->service);
        $boxes = [
            'bench' => self::lying($machine, $site->benchLength, $site->benchWidth, 0.0),
            'service' => $free === null
                    ? null
                    : new Box(
                        [-$free, -$free, 0.0],
                        [$machine->high[0] + $free, $machine->high[1] + $free, $machine->high[2]],
                    ),
            'room' => self::lying(
                $machine,
                $site->roomLength,
                $site->roomWidth,
                self::mm($site->roomHeight) ?? $machine->high[2],
            ),
        ];
        [$wide, $high] = [self::mm($site->doorWidth), self::mm($site->doorHeight)];
        if ($wide !== null && $high !== null) {
            $x = $machine->middle(0);
            $boxes['door'] = new Box(
                [$x - $wide / 2, $machine->high[1], 0.0],
                [$x + $wide / 2, $machine->high[1], $high],
            );
        }

        return array_filter($boxes, static fn (?Box $box): bool => $box !== null);
    }

    /** The longer side along the longer one of the machine. */
    private static function lying(Box $machine, ?Quantity $length, ?Quantity $width, float $height): ?Box
    {
        [$a, $b] = [self::mm($length), self::mm($width)];
        if ($a === null || $b === null) {
            return null;
        }
        [$long, $short] = [max($a, $b), min($a, $b)];
        [$x, $y] = $machine->size(0) >= $machine->size(1) ? [$long, $short] : [$short, $long];
        [$cx, $cy] = [$machine->middle(0), $machine->middle(1)];

        return new Box([$cx - $x / 2, $cy - $y / 2, 0.0], [$cx + $x / 2, $cy + $y / 2, $height]);
    }

    private static function mm(?Quantity $quantity): ?float
    {
        return $quantity?->in('mm');
    }
}
