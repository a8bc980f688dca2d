<?php

declare(strict_types=1);

namespace Magpie\Core\Machine\Placing;

use Magpie\Core\Machine\Worded;

/** Which side of a body lies along x, y and z: its length, width and height as its sheet has them. */
enum Turned: string
{
    use Worded;

    case LengthWidthHeight = 'lwh';
    case LengthHeightWidth = 'lhw';
    case WidthLengthHeight = 'wlh';
    case WidthHeightLength = 'whl';
    case HeightLengthWidth = 'hlw';
    case HeightWidthLength = 'hwl';

    /**
     * @return array{int, int, int} for x, y and z: 0 its length, 1 its width, 2 its height
     */
    public function order(): array
    {
        $of = array_flip(['l', 'w', 'h']);

        return [$of[$this->value[0]], $of[$this->value[1]], $of[$this->value[2]]];
    }
}
