<?php

declare(strict_types=1);

namespace Magpie\Core\Tests\Choice;

use DateTimeImmutable;
use Magpie\Core\Assembly\Rules;
use Magpie\Core\Choice\DecisionReview;
use Magpie\Core\Choice\FactChange;
use Magpie\Core\Choice\Facts;
use Magpie\Core\Choice\VariantDiff;
use Magpie\Core\Format\BuildFile;
use Magpie\Core\Format\LibraryFile;
use Magpie\Core\Inspection\Examples;
use Magpie\Core\Machine\Build;
use Magpie\Core\Machine\Choosing\Schools;
use Magpie\Core\Routes\RouteComparison;
use Magpie\Core\Tests\SampleBuild;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

final class DecisionTest extends TestCase
{
    /**
     * @return array<string, mixed>
     */
    private function file(): array
    {
        $file = Examples::file(
            [Examples::part('rail', 'linear_rail', ['length' => '500 mm', 'block_length' => '58 mm'])],
            [
                'axes' => [['ref' => 'x', 'name' => 'X', 'along' => 'x', 'rail' => 'rail']],
                'workpieces' => [
                    ['ref' => 'w', 'name' => 'Board', 'length' => '300 mm', 'width' => '90 mm', 'height' => '9 mm'],
                ],
                'suppliers' => [
                    [
                        'ref' => 'shop',
                        'name' => 'Shop',
                        'currency' => 'GBP',
                        'lead_days' => 6,
                        'shipping' => [['from' => '0', 'cost' => '5']],
                    ],
                ],
                'offers' => [
                    ['ref' => 'o', 'part' => 'rail', 'supplier' => 'shop', 'price' => '40', 'date' => '2026-11-01'],
                ],
                'revisions' => [
                    [
                        'ref' => 'r',
                        'of' => 'part',
                        'name' => 'Rail',
                        'revision' => 'B',
                        'date' => '2026-10-01',
                        'part' => 'rail',
                        'state' => 'ordered',
                    ],
                ],
                'routes' => [
                    [
                        'ref' => 'own',
                        'name' => 'Own',
                        'kind' => 'self-sourced',
                        'whole_build' => true,
                        'hours' => ['mechanics' => '5 h'],
                    ],
                ],
            ],
        );
        $file['parts'][] = [
            'ref' => 'other',
            'family' => 'linear_rail',
            'name' => 'Other rail',
            'specs' => ['length' => '600 mm'],
        ];
        $file['needs'][0]['candidates'] = ['rail', 'other'];
        $build = (new SampleBuild($file))->build;
        $facts = Facts::ofPart(Rules::inspector()->inspect($build), 'rail', $build->parts['rail']);
        $file['decisions'] = [
            [
                'ref' => 'd',
                'question' => 'Which rail?',
                'about' => 'part',
                'state' => 'made',
                'need' => 'rail',
                'choice' => 'rail',
                'reason' => 'Stiff.',
                'facts' => $facts,
            ],
            [
                'ref' => 'r',
                'question' => 'Which route?',
                'about' => 'route',
                'state' => 'made',
                'choice' => 'own',
                'reason' => 'Cheap.',
                'facts' => Facts::ofRoutes((new RouteComparison($build))->ledgers),
            ],
            [
                'ref' => 's',
                'question' => 'Homing?',
                'about' => 'school',
                'state' => 'made',
                'school' => 'homing',
                'choice' => 'switches',
                'reason' => 'Sure.',
            ],
            ['ref' => 'open', 'question' => 'Colour?', 'about' => 'other'],
        ];

        return $file;
    }

    public function test_the_facts_of_a_choice_are_price_wait_verdicts_revision_and_what_the_checks_read(): void
    {
        $build = (new SampleBuild($this->file()))->build;

        self::assertSame(
            [
                'Block length' => "58\u{a0}mm, datasheet",
                'M01 Usable travel, X' => 'Holds',
                'Price' => "GBP\u{a0}40.00",
                'Rail length' => "500\u{a0}mm, datasheet",
                'Revision of Rail' => 'B, ordered',
                'Wait' => '6 days',
            ],
            $build->decisions['d']->facts,
        );
        self::assertSame(
            ['open'],
            array_column(
                array_filter(
                    (new DecisionReview(Rules::inspector()->inspect($build)))->toArray(),
                    static fn (array $d): bool => $d['state'] !== 'made',
                ),
                'ref',
            ),
        );
        self::assertSame(1, (new DecisionReview(Rules::inspector()->inspect($build)))->waiting());
    }

    /**
     * @return iterable<string, array{callable(array<string, mixed>): array<string, mixed>, string, string|null,
     *     string|null}>
     */
    public static function changes(): iterable
    {
        yield 'the price' => [
            static fn (array $f): array => array_replace_recursive($f, ['offers' => [['price' => '44']]]),
            'Price',
            "GBP\u{a0}40.00",
            "GBP\u{a0}44.00",
        ];
        yield 'the wait' => [
            static fn (array $f): array => array_replace_recursive($f, ['suppliers' => [['lead_days' => 21]]]),
            'Wait',
            '6 days',
            '21 days',
        ];
        yield 'a verdict' => [
            static fn (array $f): array => array_replace_recursive($f, ['workpieces' => [['length' => '460 mm']]]),
            'M01 Usable travel, X',
            'Holds',
            'Fails',
        ];
        yield 'a revision' => [
            static fn (array $f): array => array_replace_recursive($f, ['revisions' => [['revision' => 'C']]]),
            'Revision of Rail',
            'B, ordered',
            'C, ordered',
        ];
        yield 'another candidate, cheaper and not compared' => [
            static fn (array $f): array => array_replace_recursive($f, [
                'parts' => [2 => ['ref' => 'third', 'family' => 'linear_rail', 'name' => 'Third rail']],
                'needs' => [['candidates' => [2 => 'third']]],
                'offers' => [
                    1 => ['ref' => 'o3', 'part' => 'third', 'supplier' => 'shop', 'price' => '31', 'date' => '2026-11-02'],
                ],
            ]),
            'Third rail, not compared yet',
            null,
            "GBP\u{a0}31.00",
        ];
        yield 'another choice' => [
            static fn (array $f): array => array_replace_recursive($f, ['needs' => [['choice' => 'other']]]),
            'Part that is chosen',
            'rail',
            'Other rail',
        ];
    }

    /**
     * @param  callable(array<string, mixed>): array<string, mixed>  $change
     */
    #[DataProvider('changes')]
    public function test_a_decision_is_reopened_by_a_fact_that_changed(
        callable $change,
        string $fact,
        ?string $was,
        ?string $is,
    ): void {
        $build = (new SampleBuild($change($this->file())))->build;
        $review = array_column((new DecisionReview(Rules::inspector()->inspect($build)))->toArray(), null, 'ref');

        self::assertSame('reopened', $review['d']['state']);
        self::assertContains(['fact' => $fact, 'was' => $was, 'is' => $is], $review['d']['changed']);
        self::assertSame('made', $review['s']['state'], 'A question of practice rests on no figure.');
    }

    /**
     * @return iterable<string, array{array<string, mixed>}> what is laid over the file
     */
    public static function betters(): iterable
    {
        yield 'a lower price' => [['offers' => [['price' => '36']]]];
        yield 'a shorter wait' => [['suppliers' => [['lead_days' => 2]]]];
        yield 'the same revision, in hand' => [['revisions' => [['state' => 'in hand']]]];
        yield 'a measured size that still holds' => [
            ['parts' => [['specs' => ['length' => ['value' => '499 mm', 'evidence' => 'measured']]]]],
        ];
        yield 'another candidate, dearer' => [
            [
                'parts' => [2 => ['ref' => 'third', 'family' => 'linear_rail', 'name' => 'Third rail']],
                'needs' => [['candidates' => [2 => 'third']]],
                'offers' => [
                    1 => ['ref' => 'o3', 'part' => 'third', 'supplier' => 'shop', 'price' => '51', 'date' => '2026-11-02'],
                ],
            ],
        ];
    }

    /**
     * @param  array<string, mixed>  $over
     */
    #[DataProvider('betters')]
    public function test_what_is_no_worse_reopens_nothing(array $over): void
    {
        $build = (new SampleBuild(array_replace_recursive($this->file(), $over)))->build;
        $review = array_column((new DecisionReview(Rules::inspector()->inspect($build)))->toArray(), null, 'ref');

        self::assertSame([], $review['d']['changed']);
        self::assertSame('made', $review['d']['state']);
    }

    public function test_more_or_less_of_a_line_counts_where_one_of_them_is_better(): void
    {
        $motor = LibraryFile::read(['part' => ['ref' => 'm', 'family' => 'stepper_motor', 'name' => 'M']])->part;
        $torque = $motor->family->field('holding_torque')->label ?? '';
        $worse = static fn (?string $was, ?string $is): bool => FactChange::isWorse($torque, $was, $is, $motor);

        self::assertTrue($worse('1.9 N m, datasheet', '1.7 N m, measured'));
        self::assertFalse($worse('1.9 N m, datasheet', '1.89 N m, measured'), 'Within a hundredth it is the same.');
        self::assertFalse($worse('1.9 N m ± 5 %, datasheet', '2.1 N m, measured'));
        self::assertTrue($worse('1.9 N m, datasheet', null), 'Nobody says it any more.');
        self::assertTrue(FactChange::isWorse('Mass', '1 kg, datasheet', '1.2 kg, measured', $motor), 'Less of it is better.');
        self::assertFalse(FactChange::isWorse('Mass', '1 kg, datasheet', '0.8 kg, measured', $motor));
        self::assertTrue(FactChange::isWorse('E08 Motor and driver, X', 'Holds', 'Tight', $motor));
        self::assertTrue(FactChange::isWorse('E08 Motor and driver, X', 'Tight', 'Unproven', $motor));
        self::assertFalse(FactChange::isWorse('E08 Motor and driver, X', 'Unproven', 'Tight', $motor));
        self::assertFalse(FactChange::isWorse('E08 Motor and driver, X', null, 'Unproven', $motor), 'A check of today.');
        self::assertTrue(FactChange::isWorse('E08 Motor and driver, X', null, 'Fails', $motor));
        self::assertFalse(FactChange::isWorse('E08 Motor and driver, X', 'Holds', null, $motor));
        self::assertTrue(FactChange::isWorse('Price', 'GBP 40.00', 'EUR 30.00', $motor), 'Nobody can tell without a rate.');
        self::assertTrue(FactChange::isWorse('Price', 'GBP 9.50', 'GBP 10.00', $motor));
        self::assertFalse(FactChange::isWorse('Price', 'none', 'GBP 10.00', $motor));
    }

    public function test_a_route_is_reopened_when_what_it_costs_changes(): void
    {
        $file = array_replace_recursive($this->file(), ['offers' => [['price' => '41']]]);
        $review = array_column(
            (new DecisionReview(Rules::inspector()->inspect((new SampleBuild($file))->build)))->toArray(),
            null,
            'ref',
        );

        self::assertSame(
            ['fact' => 'Own, at the door', 'was' => "GBP\u{a0}45.00", 'is' => "GBP\u{a0}46.00"],
            $review['r']['changed'][0],
        );
        $cheaper = array_replace_recursive($this->file(), ['offers' => [['price' => '39']]]);
        $review = array_column(
            (new DecisionReview(Rules::inspector()->inspect((new SampleBuild($cheaper))->build)))->toArray(),
            null,
            'ref',
        );
        self::assertSame('made', $review['r']['state']);
    }

    public function test_every_divided_question_has_two_sides_and_what_decides(): void
    {
        self::assertGreaterThanOrEqual(17, count(Schools::all()));
        foreach (Schools::all() as $key => $school) {
            self::assertMatchesRegularExpression('/^[a-z-]+$/', $key);
            self::assertGreaterThanOrEqual(2, count($school['sides']), $key);
            self::assertNotSame('', $school['decides']);
        }
    }

    public function test_two_variants_are_told_apart_line_by_line(): void
    {
        $file = $this->file();
        $file['parts'][0]['specs']['mass'] = '1.5 kg';
        $one = (new SampleBuild($file))->build;
        $other = BuildFile::build(
            array_replace_recursive(BuildFile::data($one), [
                'needs' => [['choice' => 'other', 'quantity' => 2]],
                'build' => ['name' => 'Longer'],
            ]),
        );
        $diff = $this->diff($one, $other);

        self::assertSame(
            [['need' => 'rail', 'role' => 'rail', 'one' => '1 × rail', 'other' => '2 × Other rail', 'same' => false]],
            $diff['parts'],
        );
        self::assertSame(
            [['key' => 'M01/x', 'title' => 'Usable travel', 'subject' => 'X', 'one' => 'holds', 'other' => 'unproven']],
            $diff['findings'],
        );
        self::assertSame(
            [['Under test', 1.5, 0, '45.00', 0], ['Longer', 0.0, 1, '0.00', 1]],
            array_map(
                static fn (array $s): array => [
                    $s['name'],
                    $s['kilograms'],
                    $s['unweighed'],
                    $s['planned'],
                    $s['unpriced'],
                ],
                $diff['sides'],
            ),
        );
        self::assertSame([], $this->diff($one, $one)['findings']);
    }

    /**
     * @return array<string, mixed>
     */
    private function diff(Build $one, Build $other): array
    {
        return (new VariantDiff(
            Rules::inspector()->inspect($one),
            Rules::inspector()->inspect($other),
            new DateTimeImmutable('2026-11-25'),
        ))->toArray();
    }
}
