<?php

declare(strict_types=1);

namespace Magpie\Core\Quantity\Exception;

use Magpie\Core\Quantity\Dimension;
use RuntimeException;

/** A text that was meant as a quantity and cannot be taken as one. The message says why and what is wanted. */
class CannotReadQuantity extends RuntimeException
{
    final protected function __construct(string $message)
    {
        parent::__construct($message);
    }

    public static function notANumber(string $text, Dimension $wanted): self
    {
        return new self(
            sprintf(
                '"%s" has no number that can be read; write %s such as "12 %s".',
                $text,
                $wanted->withArticle(),
                $wanted->unit(),
            ),
        );
    }

    public static function ambiguousComma(string $text): self
    {
        return new self(
            sprintf(
                '"%s" can be read two ways; write the thousands without a comma, or the decimals with a point.',
                $text,
            ),
        );
    }

    public static function noUnit(string $text, Dimension $wanted): self
    {
        return new self(
            sprintf(
                '"%s" has no unit; %s is wanted, such as "%s %s".',
                $text,
                $wanted->withArticle(),
                $text,
                $wanted->unit(),
            ),
        );
    }

    public static function tooLarge(string $text): self
    {
        return new self(sprintf('"%s" is too large or too small to be a size of anything here.', $text));
    }
}
