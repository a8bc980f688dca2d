<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Builds\Document;
use App\Models\Build;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use Magpie\Core\Assembly\Rules;
use Magpie\Core\Electrical\Circuits;
use Magpie\Core\Electrical\LeadProposal;
use Magpie\Core\Electrical\LeadProposals;
use Magpie\Core\Electrical\Netlist;
use Magpie\Core\Electrical\PortAllocation;
use Magpie\Core\Electrical\Stops;
use Magpie\Core\Electrical\Views\Harness;
use Magpie\Core\Electrical\Views\WhatIf;
use Magpie\Core\Electrical\Views\WiringMap;
use Magpie\Core\Firmware\SettingsAudit;
use Magpie\Core\Quantity\Money;

/** The wiring as it is drawn, as it is made, and as another program solves it. */
final class WiringController
{
    /** As planned; or with a load doubled, the supplies sagging or a stop pressed, and what that makes worse. */
    public function show(Request $request, Build $build): JsonResponse
    {
        $asked = $request->validate([
            'doubled' => ['nullable', 'string', 'max:64'],
            'sag' => ['nullable', 'boolean'],
            'pressed' => ['nullable', 'string', 'max:64'],
        ]);
        $planned = Document::of($build)->inspection();
        $whatIf = new WhatIf(
            $asked['doubled'] ?? null,
            (bool) ($asked['sag'] ?? false),
            array_values(array_filter([$asked['pressed'] ?? null])),
        );
        if ($whatIf->changesNothing()) {
            return new JsonResponse((new WiringMap($planned))->toArray() + ['worse' => []]);
        }
        $then = Rules::inspector()->inspect($whatIf->of($planned->survey->build));

        return new JsonResponse((new WiringMap($then))->toArray() + ['worse' => $planned->worseIn($then)]);
    }

    /** The leads it still wants; of one need only those that touch it. */
    public function proposed(Request $request, Build $build): JsonResponse
    {
        $asked = $request->validate(['need' => ['nullable', 'string', 'max:64']]);
        $need = $asked['need'] ?? null;
        $found = LeadProposals::of(Document::of($build)->survey());
        $leads = array_filter(
            $found['leads'],
            static fn (LeadProposal $lead): bool => $need === null || $lead->touches($need),
        );
        $open = array_filter(
            $found['open'],
            static fn (array $one): bool => $need === null || str_starts_with($one['port'], "{$need}."),
        );

        return new JsonResponse([
            'leads' => array_map(static fn (LeadProposal $lead): array => $lead->toArray(), array_values($leads)),
            'open' => array_values($open),
        ]);
    }

    public function stops(Build $build): JsonResponse
    {
        return new JsonResponse(Stops::of(Document::of($build)->inspection()->survey)->toArray());
    }

    public function ports(Build $build): JsonResponse
    {
        return new JsonResponse(PortAllocation::of(Document::of($build)->inspection()->survey)->toArray());
    }

    public function transfer(Build $build, string $need, string $part): JsonResponse
    {
        $survey = Document::of($build)->inspection()->survey;
        abort_unless(
            in_array($part, ($survey->build->needs[$need] ?? null)->candidates ?? [], true),
            404,
            'That part is no candidate for this board.',
        );

        return new JsonResponse(PortAllocation::transfer($survey, $need, $part));
    }

    public function settings(Build $build): JsonResponse
    {
        return new JsonResponse(SettingsAudit::of(Document::of($build)->inspection()->survey)->toArray());
    }

    public function harness(Build $build): JsonResponse
    {
        return new JsonResponse((new Harness(Document::of($build)->survey()->build))->toArray());
    }

    /** A made-up loom held against one made by hand. */
    public function loom(Request $request, Build $build): JsonResponse
    {
        $asked = $request->validate([
            'price' => ['required', 'decimal:0,2', 'min:0'],
            'minutes' => ['required', 'numeric', 'between:0.1,60'],
        ]);
        $machine = Document::of($build)->machine();

        return new JsonResponse(
            (new Harness($machine))->againstLoom(
                Money::of((string) $asked['price'], $machine->plan->currency),
                (float) $asked['minutes'],
            ),
        );
    }

    public function harnessCsv(Build $build): Response
    {
        $lines = (new Harness(Document::of($build)->survey()->build))->lines();

        return new Response(implode('', [...$lines]), 200, [
            'Content-Type' => 'text/csv; charset=UTF-8',
            'Content-Disposition' => "attachment; filename=\"{$build->slug}-harness.csv\"",
        ]);
    }

    public function netlist(Build $build, string $scenario): Response
    {
        $circuits = new Circuits(Document::of($build)->machine());
        foreach ($circuits->scenarios() as $one) {
            if ($one->ref === $scenario) {
                return new Response((new Netlist($circuits))->of($one), 200, [
                    'Content-Type' => 'text/plain; charset=UTF-8',
                    'Content-Disposition' => "attachment; filename=\"{$build->slug}-{$scenario}.cir\"",
                ]);
            }
        }
        abort(404, 'This build has no such scenario.');
    }
}
