<?php

declare(strict_types=1);

namespace Magpie\Core\Tests\Library;

use Magpie\Core\Families\Catalogue;
use Magpie\Core\Format\LibraryFile;
use Magpie\Core\Library\Entry;
use Magpie\Core\Library\Wanted;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** What is typed to find a part is told apart into words and figures, and figures are held against sheets. */
final class WantedTest extends TestCase
{
    /**
     * @return iterable<string, array{string, list<string>, list<string>}> typed, words, figures as told back
     */
    public static function typed(): iterable
    {
        yield 'words alone' => ['Chamber fan', ['chamber', 'fan'], []];
        yield 'a frame and a torque' => ['motor, 57 mm, > 1.5 N m', ['motor'], ['about 57 mm', 'at least 1.5 N m']];
        yield 'no blank, no comma' => ['fan 24V quiet', ['fan', 'quiet'], ['about 24 V']];
        yield 'a line of the sheet by name' => [
            'motor, holding torque over 1.5 Nm',
            ['motor'],
            ['holding torque at least 1.5 N m'],
        ];
        yield 'from one to another' => ['supply 24 to 48 V', ['supply'], ['24 V to 48 V']];
        yield 'at most' => ['fuse up to 10 A', ['fuse'], ['at most 10 A']];
        yield 'a decimal comma is no list' => ['heater 1,5 kW', ['heater'], ['about 1.5 kW']];
        yield 'a thread is a word' => ['screw M8, 20 mm', ['screw', 'm8'], ['about 20 mm']];
        yield 'a number alone is a word' => ['board 5 drivers', ['board', '5', 'drivers'], []];
        yield 'a unit begins no word' => ['9 motors', ['9', 'motors'], []];
        yield 'a gauge' => ['wire 18 AWG', ['wire'], ['about 18 AWG']];
        yield 'nothing' => [' , ;', [], []];
    }

    /**
     * @param  list<string>  $words
     * @param  list<string>  $figures
     */
    #[DataProvider('typed')]
    public function test_words_and_figures_are_told_apart(string $typed, array $words, array $figures): void
    {
        $wanted = Wanted::read($typed, Catalogue::standard()->all());

        self::assertSame($words, $wanted->words);
        self::assertSame(
            $figures,
            array_map(static fn (string $t): string => str_replace("\u{a0}", ' ', $t), array_column($wanted->figures, 'text')),
        );
    }

    /**
     * @return iterable<string, array{string, bool}>
     */
    public static function asked(): iterable
    {
        yield 'a torque it has more of' => ['> 1.5 N m', true];
        yield 'a torque it lacks' => ['> 2 N m', false];
        yield 'in another unit' => ['> 200 oz-in', true];
        yield 'about its frame' => ['57 mm', true];
        yield 'another frame' => ['42 mm', false];
        yield 'the line named' => ['holding torque 1.9 N m', true];
        yield 'another line named' => ['length 57 mm', false];
        yield 'its own line named' => ['width 57 mm', true];
        yield 'less than it draws' => ['rated current < 2 A', false];
        yield 'between' => ['2.5 to 3 A', true];
        yield 'a dimension its sheet says nothing of' => ['24 V', false];
    }

    #[DataProvider('asked')]
    public function test_a_sheet_answers_a_figure(string $typed, bool $answers): void
    {
        $figures = self::motor()->figures();
        $wanted = Wanted::read($typed, Catalogue::standard()->all())->figures;

        self::assertCount(1, $wanted);
        self::assertSame($answers, array_filter($figures, $wanted[0]->isMetBy(...)) !== []);
    }

    public function test_what_tells_it_from_others_stands_first_with_its_name(): void
    {
        self::assertSame(
            ['holding torque 1.9 N m', 'rated current per phase 2.8 A', 'width 56.4 mm'],
            array_map(
                static fn (string $t): string => str_replace("\u{a0}", ' ', $t),
                array_values(array_intersect_key(self::motor()->telling(), [0 => 1, 1 => 1, 2 => 1])),
            ),
        );
    }

    private static function motor(): Entry
    {
        return LibraryFile::read([
            'part' => [
                'ref' => 'm',
                'family' => 'stepper_motor',
                'name' => 'Motor of a 57 mm frame',
                'specs' => [
                    'body_width' => '56.4 mm',
                    'rated_current' => ['value' => '2.8 A', 'evidence' => 'datasheet'],
                    'holding_torque' => ['value' => '1.9 N m', 'evidence' => 'datasheet'],
                ],
            ],
        ]);
    }
}
