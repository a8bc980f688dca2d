<?php

declare(strict_types=1);

namespace Magpie\Core\Tests\Money;

use Magpie\Core\Money\Basket;
use Magpie\Core\Quantity\Money;
use Magpie\Core\Tests\SampleBuild;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** What one order costs at the door. */
final class BasketTest extends TestCase
{
    /**
     * @return iterable<string, array{string, array<string, string>, array{string, string, string, string}}>
     */
    public static function baskets(): iterable
    {
        // goods; duty, tax, fee, total, worked by hand with 10 shipping.
        yield 'all of it' => [
            '200',
            ['duty' => '5 %', 'tax' => '20 %', 'fee' => '2 %'],
            ['10.50', '44.10', '5.29', '269.89'],
        ];
        yield 'at the duty threshold' => [
            '200',
            ['duty' => '5 %', 'duty_free' => '200'],
            ['0.00', '0.00', '0.00', '210.00'],
        ];
        yield 'a penny above it' => [
            '200.01',
            ['duty' => '5 %', 'duty_free' => '200'],
            ['10.50', '0.00', '0.00', '220.51'],
        ];
        yield 'below the tax threshold' => [
            '30',
            ['tax' => '20 %', 'tax_free' => '39'],
            ['0.00', '0.00', '0.00', '40.00'],
        ];
        yield 'prices that include it' => ['30', [], ['0.00', '0.00', '0.00', '40.00']];
    }

    /**
     * @param  array<string, string>  $terms
     * @param  array{string, string, string, string}  $wanted
     */
    #[DataProvider('baskets')]
    public function test_a_basket_lands_with_what_the_border_takes(string $goods, array $terms, array $wanted): void
    {
        $supplier = (new SampleBuild([
            'suppliers' => [
                $terms + [
                    'ref' => 's',
                    'name' => 'S',
                    'currency' => 'EUR',
                    'shipping' => [['from' => '0', 'cost' => '10']],
                ],
            ],
        ]))->build->suppliers['s'];
        $basket = new Basket($supplier, Money::of($goods, 'EUR'));

        self::assertSame($wanted, [
            $basket->duty->amount(),
            $basket->tax->amount(),
            $basket->fee->amount(),
            $basket->total->amount(),
        ]);
    }
}
