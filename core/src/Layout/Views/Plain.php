<?php

declare(strict_types=1);

namespace Magpie\Core\Layout\Views;

/** Numbers and words as a drawing or list for other programs has them. */
final class Plain
{
    /** With so many places at the most, and a point. */
    public static function number(float $value, int $places = 2): string
    {
        return rtrim(rtrim(number_format($value, $places, '.', ''), '0'), '.');
    }

    /** Text within XML. */
    public static function xml(string $text): string
    {
        return htmlspecialchars($text, ENT_XML1 | ENT_QUOTES, 'UTF-8');
    }
}
