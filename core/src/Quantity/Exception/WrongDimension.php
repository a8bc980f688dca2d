<?php

declare(strict_types=1);

namespace Magpie\Core\Quantity\Exception;

use Magpie\Core\Quantity\Dimension;

final class WrongDimension extends CannotReadQuantity
{
    public static function of(string $text, Dimension $found, Dimension $wanted): self
    {
        return new self(
            sprintf(
                '"%s" is %s; %s is wanted here, in %s for example.',
                $text,
                $found->withArticle(),
                $wanted->withArticle(),
                $wanted->unit() === '' ? '%' : $wanted->unit(),
            ),
        );
    }
}
