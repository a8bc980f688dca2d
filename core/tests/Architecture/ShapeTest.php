<?php

declare(strict_types=1);

namespace Magpie\Core\Tests\Architecture;

use Magpie\Core\Families\Catalogue;
use Magpie\Core\Machine\Family;
use PhpToken;
use PHPUnit\Framework\TestCase;
use RecursiveDirectoryIterator;
use RecursiveIteratorIterator;
use SplFileInfo;

/** What the shape of the code must keep, beside the floors that phpstan holds (tests/Architecture/Arrows.php). */
final class ShapeTest extends TestCase
{
    private static function root(): string
    {
        return dirname(__DIR__, 3);
    }

    /**
     * @return iterable<string> paths
     */
    private static function php(string ...$folders): iterable
    {
        foreach ($folders as $folder) {
            $files = new RecursiveIteratorIterator(new RecursiveDirectoryIterator(self::root()."/{$folder}"));
            /** @var SplFileInfo $file */
            foreach ($files as $file) {
                if ($file->getExtension() === 'php') {
                    yield $file->getPathname();
                }
            }
        }
    }

    public function test_a_rule_judges_by_nothing_it_has_not_asked_the_inquiry_for(): void
    {
        $past = [];
        foreach (self::php('core/src') as $path) {
            if (! str_contains($path, '/Rules/')) {
                continue;
            }
            $method = '';
            foreach ($tokens = PhpToken::tokenize((string) file_get_contents($path)) as $i => $token) {
                if ($token->is(T_FUNCTION) && ($tokens[$i + 2] ?? null)?->is(T_STRING)) {
                    $method = $tokens[$i + 2]->text;
                }
                if (
                    in_array($token->text, ['spec', 'portSpec', 'specs'], true) &&
                    ($tokens[$i - 1] ?? null)?->is([T_OBJECT_OPERATOR, T_NULLSAFE_OBJECT_OPERATOR]) &&
                    $method !== 'subjects'
                ) {
                    $past[] = basename($path).":{$token->line} in {$method}()";
                }
            }
        }

        self::assertSame([], $past, 'A value read past the inquiry is no input, and nobody sees what it rests on.');
    }

    /**
     * A new family is judged, planned and listed by what it says it can do. Named are only what a need without a part
     * asks for, and families that are put in: a proposal, a link, an example.
     */
    public function test_nothing_outside_the_families_asks_a_part_for_its_family_by_name(): void
    {
        $families = array_map(static fn (Family $f): string => preg_quote($f->key(), '/'), Catalogue::standard()->all());
        $name = "'(?:".implode('|', $families).")'";
        $asks = '/->fittedOf\(|(?<!need)(?<!\$n)->family(?:->key\(\))? [!=]== '.$name.'|family->key\(\), \[/';
        $found = [];
        foreach (self::php('core/src') as $path) {
            foreach (str_contains($path, '/Families/') ? [] : (array) file($path) as $number => $line) {
                if (preg_match($asks, (string) $line) === 1 && ! str_contains((string) $line, '->need(')) {
                    $found[] = basename($path).':'.($number + 1).' '.trim((string) $line);
                }
            }
        }

        self::assertSame([], $found, 'Ask for an Ability instead.');
    }

    public function test_what_is_shared_on_screen_knows_nothing_of_the_frame(): void
    {
        foreach (glob(self::root().'/resources/ui/shared/*') ?: [] as $path) {
            self::assertStringNotContainsString("'@/app/", (string) file_get_contents($path), basename($path));
        }
    }

    public function test_lines_fit_a_page(): void
    {
        foreach (['core/src', 'core/tests', 'app', 'bin/src', 'tests', 'routes'] as $folder) {
            $long = $all = 0;
            foreach (self::php($folder) as $path) {
                foreach (file($path) ?: [] as $line) {
                    $all++;
                    $long += mb_strlen(rtrim($line, "\n")) > 120 ? 1 : 0;
                }
            }
            self::assertLessThan(1.5, (100 * $long) / $all, "{$folder}: lines over 120 columns, in percent");
        }
    }
}
