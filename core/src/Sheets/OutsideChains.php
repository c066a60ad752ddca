<?php

declare(strict_types=1);

namespace Plinth\Core\Sheets;

use Plinth\Core\Sheets\Internal\ChainInk;
use Plinth\Core\Sheets\Internal\FreePaper;
use Plinth\Core\Sheets\Internal\OutsidePlaces;
use Plinth\Core\Sheets\Internal\PlaceNames;

/**
 * Chains of dimensions round a plan (ISO 129-1): openings nearest to it, then walls and the rooms behind them, then overall. Figures of
 * a chain add up. Lines that lead to a chain are left out where a figure stands.
 *
 * @phpstan-type Ring non-empty-list<array{float, float}>
 */
final class OutsideChains
{
    /** mm of paper: from the plan to the nearest chain, and from one to the next; common practice, no source. */
    private const FIRST_MM = 13.5;
    private const NEXT_MM = 9.0;
    /** Lines that lead there begin so far off the plan and go on so far beyond their chain (ISO 129-1: a little). */
    private const GAP_MM = 1.5;
    private const BEYOND_MM = 2.0;
    /** Round a figure lines are left out for so much, mm. */
    private const CLEAR_MM = 0.3;
    private const NAMES = ['openings', 'rooms', 'overall'];

    /** @var list<array{array{float, float}, array{float, float}}> lines that lead to chains */
    private array $leads = [];

    private function __construct(private readonly PlanOnPaper $paper, private readonly ChainInk $ink)
    {
    }

    /**
     * @param list<Ring> $rings round walls, counter-clockwise, mm of the plan
     * @param array<string, Ring> $openings cut-outs in plan, by id
     * @param list<Ring> $rooms along their inner faces, counter-clockwise
     * @param list<Ring> $beside what stands there as well, and chains keep away from
     */
    public static function round(
        array $rings,
        array $openings,
        array $rooms,
        array $beside,
        PlaceNames $names,
        PlanOnPaper $paper,
        ChainInk $ink,
        FreePaper $free,
    ): void {
        $chains = new self($paper, $ink);
        if ([] !== $rings) {
            foreach (ChainSide::cases() as $side) {
                $chains->along($side, $rings, $openings, $rooms, $beside, $names);
            }
        }
        foreach ($chains->leads as [$from, $to]) {
            foreach ($free->beside($from, $to, self::CLEAR_MM) as $piece) {
                $ink->lines[] = new InkLine($piece, InkLine::FINE);
                $free->line($piece);
            }
        }
    }

    /**
     * @param non-empty-list<Ring> $rings
     * @param array<string, Ring> $openings
     * @param list<Ring> $rooms
     * @param list<Ring> $beside
     */
    private function along(ChainSide $side, array $rings, array $openings, array $rooms, array $beside, PlaceNames $names): void
    {
        $places = new OutsidePlaces($rings, $side, $names);
        [$corners, $jambs, $faces] = [$places->corners(), $places->jambs($openings), $places->rooms($rooms)];
        if (\count($corners) < 2) {
            return;
        }
        $outermost = -\INF;
        foreach (array_merge(...$rings, ...$beside) as $p) {
            $outermost = max($outermost, $side->of($p)[1]);
        }
        $chains = [
            [] === $jambs ? [] : OutsidePlaces::once([...$corners, ...$jambs]),
            [] !== $faces ? $faces : (\count($corners) > 2 ? $corners : []),
            [$corners[0], $corners[\count($corners) - 1]],
        ];
        $reach = [];
        $row = 0;
        foreach ($chains as $k => $chain) {
            $key = $side->value.'.'.self::NAMES[$k];
            if ([] === $chain || $this->ink->marks->isLeftOut($key)) {
                continue;
            }
            $out = $outermost + (self::FIRST_MM + self::NEXT_MM * $row++) * $this->paper->scale + $this->ink->movedOut($key, $side);
            $told = $this->ink->chain($side, array_map(static fn (array $p): array => [$p[0], $p[2]], $chain), $out, $key);
            foreach ($chain as [$along, $from]) {
                if (\in_array($along, $told, true)) {
                    $reach[(string) round($along, 1)] = [
                        $along,
                        $places->over($along, $from),
                        max($out, $reach[(string) round($along, 1)][2] ?? $out),
                    ];
                }
            }
        }
        foreach ($reach as [$along, $from, $to]) {
            [$gap, $beyond] = [self::GAP_MM * $this->paper->scale, self::BEYOND_MM * $this->paper->scale];
            $this->leads[] = [$this->paper->of($side->at($along, $from + $gap)), $this->paper->of($side->at($along, $to + $beyond))];
        }
    }
}
