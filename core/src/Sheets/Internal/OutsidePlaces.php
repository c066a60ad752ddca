<?php

declare(strict_types=1);

namespace Plinth\Core\Sheets\Internal;

use Plinth\Core\Sheets\ChainSide;

/**
 * What the chains outside a building tell of from one of its sides: corners of walls that are seen from there, jambs of openings in them,
 * and the faces of the rooms behind them.
 *
 * @internal
 *
 * @phpstan-type Ring non-empty-list<array{float, float}>
 */
final class OutsidePlaces
{
    /** A wall faces a side that looks there, but for so much, as a sine: some 6°. */
    private const ASKEW = 0.1;
    /** radians that chords of something round turn against each other */
    private const TURNS = [0.002, 0.35];
    /** mm: what is shorter and goes on nearly straight on either side is no face of its own */
    private const SHORT_MM = 100.0;
    /** No wall that rooms lie behind is thicker, mm. */
    private const THICKEST_MM = 1000.0;
    /** Nearer places than this are one; a jamb that lies no further off a face lies in it, mm. */
    private const SAME_MM = 2.0;

    /** @var list<array{float, float, float, string, string}> faces that look there: from and to, how far out, mm; what their ends are */
    private array $faces = [];

    /** @param list<Ring> $rings round walls, counter-clockwise */
    public function __construct(private readonly array $rings, private readonly ChainSide $side, private readonly PlaceNames $names)
    {
        $all = [];
        foreach (array_map(self::plain(...), $rings) as $ring) {
            foreach ($ring as $i => $p) {
                [$along, $out] = $side->of($p);
                [$to, $next] = $side->of($ring[($i + 1) % \count($ring)]);
                $length = hypot($to - $along, $next - $out);
                // Round a building the other way than its side counts, faces that look there run on.
                $looksThere = $length > self::SAME_MM && abs($next - $out) < self::ASKEW * $length && ($to > $along) === $side->runsOn();
                if ($looksThere && !self::isRound($ring, $i)) {
                    $ends = [$names->of($p), $names->of($ring[($i + 1) % \count($ring)])];
                    $all[] = [min($along, $to), max($along, $to), max($out, $next), ...($to > $along ? $ends : array_reverse($ends))];
                }
            }
        }
        usort($all, static fn (array $a, array $b): int => $a[0] <=> $b[0]);
        foreach ($all as [$from, $to, $out, $begins, $ends]) {
            $middle = ($from + $to) / 2.0;
            $before = array_filter($all, static fn (array $f): bool => $f[2] > $out + self::SAME_MM && $f[0] < $middle && $f[1] > $middle);
            $last = \count($this->faces) - 1;
            $runsOn = $last >= 0
                && abs($this->faces[$last][2] - $out) < self::SAME_MM
                && abs($this->faces[$last][1] - $from) < self::SAME_MM;
            if ([] === $before && $runsOn) {
                // Where an inner wall joins there is a corner of the outline and none of the building.
                $this->faces[$last] = [$this->faces[$last][0], $to, $this->faces[$last][2], $this->faces[$last][3], $ends];
            } elseif ([] === $before) {
                $this->faces[] = [$from, $to, $out, $begins, $ends];
            }
        }
    }

    /**
     * Corners, and the inner faces of the rooms that lie right behind what is seen.
     *
     * @param list<Ring> $regions along inner faces, counter-clockwise
     *
     * @return list<array{float, float, string}> none where no room lies there
     */
    public function rooms(array $regions): array
    {
        $places = [];
        foreach (array_map(self::plain(...), $regions) as $ring) {
            foreach ($ring as $i => $p) {
                [$along, $out] = $this->side->of($p);
                [$to, $next] = $this->side->of($ring[($i + 1) % \count($ring)]);
                if (hypot($to - $along, $next - $out) <= self::SAME_MM || ($to > $along) !== $this->side->runsOn()) {
                    continue;
                }
                $ends = [[$along, $this->names->of($p)], [$to, $this->names->of($ring[($i + 1) % \count($ring)])]];
                [[$low, $first], [$high, $second]] = $to > $along ? $ends : array_reverse($ends);
                foreach ($this->faces as [$from, $until, $face]) {
                    $behind = $face - max($out, $next);
                    $isThere = $behind > 0.0 && $behind < self::THICKEST_MM && abs($next - $out) < self::ASKEW * ($high - $low);
                    if ($isThere && !self::isRound($ring, $i) && $low > $from - self::SAME_MM && $high < $until + self::SAME_MM) {
                        array_push($places, [$low, $face, $first], [$high, $face, $second]);
                    }
                }
            }
        }

        return [] === $places ? [] : self::once([...$this->corners(), ...$places]);
    }

    /**
     * Without steps that are too small to be told, as where chords of one wall and of another meet.
     *
     * @param Ring $ring
     *
     * @return Ring
     */
    private static function plain(array $ring): array
    {
        $plain = [$ring[0]];
        foreach ($ring as $p) {
            $last = $plain[\count($plain) - 1];
            if (hypot($p[0] - $last[0], $p[1] - $last[1]) > self::SAME_MM) {
                $plain[] = $p;
            }
        }

        return $plain;
    }

    /**
     * Whether an edge is a chord of something round: one of three beside each other that are about as long and turn one way, a little each,
     * or a short one among such. Where chords end is no corner of anything.
     *
     * @param Ring $ring
     */
    private static function isRound(array $ring, int $at): bool
    {
        $count = \count($ring);
        $edges = [];
        for ($k = $at - 2; $k <= $at + 2; ++$k) {
            [$a, $b] = [$ring[($k + 2 * $count) % $count], $ring[($k + 1 + 2 * $count) % $count]];
            $edges[] = [$b[0] - $a[0], $b[1] - $a[1], hypot($b[0] - $a[0], $b[1] - $a[1])];
        }
        [$turns, $alike] = [[], []];
        foreach ([0, 1, 2, 3] as $k) {
            [[$ax, $ay, $length], [$bx, $by, $next]] = [$edges[$k], $edges[$k + 1]];
            $turns[] = atan2($ax * $by - $ay * $bx, $ax * $bx + $ay * $by);
            $alike[] = $next > 0.5 * $length && $next < 2.0 * $length;
        }
        $isLittle = static fn (float $t): bool => abs($t) > self::TURNS[0] && abs($t) < self::TURNS[1];
        for ($k = 0; $k < 3; ++$k) {
            $areLittle = $isLittle($turns[$k]) && $isLittle($turns[$k + 1]) && $turns[$k] > 0.0 === $turns[$k + 1] > 0.0;
            if ($areLittle && $alike[$k] && $alike[$k + 1]) {
                return true;
            }
        }

        $goesOn = max(abs($turns[1]), abs($turns[2])) < self::TURNS[1];

        return $edges[2][2] < self::SHORT_MM && $goesOn && [] !== array_filter($turns, $isLittle);
    }

    /** @return float mm, how far out walls reach over a place; no less than the place itself */
    public function over(float $along, float $out): float
    {
        foreach ($this->rings as $ring) {
            foreach ($ring as $i => $p) {
                [$from, $a] = $this->side->of($p);
                [$to, $b] = $this->side->of($ring[($i + 1) % \count($ring)]);
                if ($along > min($from, $to) - self::SAME_MM && $along < max($from, $to) + self::SAME_MM) {
                    $part = abs($to - $from) < self::SAME_MM ? 0.0 : max(0.0, min(1.0, ($along - $from) / ($to - $from)));
                    $out = max($out, $a + $part * ($b - $a));
                }
            }
        }

        return $out;
    }

    /** @return list<array{float, float, string}> along the side, out, and what is there; each once, in order */
    public function corners(): array
    {
        $places = [];
        foreach ($this->faces as [$from, $to, $out, $begins, $ends]) {
            array_push($places, [$from, $out, $begins], [$to, $out, $ends]);
        }

        return self::once($places);
    }

    /**
     * @param array<string, Ring> $openings cut-outs in plan, by id
     *
     * @return list<array{float, float, string}>
     */
    public function jambs(array $openings): array
    {
        $places = [];
        foreach ($openings as $id => $ring) {
            $at = array_map($this->side->of(...), $ring);
            [$from, $to] = [min(array_column($at, 0)), max(array_column($at, 0))];
            foreach ($this->faces as [$low, $high, $out]) {
                $inFace = array_filter($at, static fn (array $p): bool => abs($p[1] - $out) < self::SAME_MM);
                if (\count($inFace) > 1 && $from > $low - self::SAME_MM && $to < $high + self::SAME_MM) {
                    array_push($places, [$from, $out, "$id<"], [$to, $out, "$id>"]);
                }
            }
        }

        return self::once($places);
    }

    /**
     * @param list<array{float, float, string}> $places
     *
     * @return list<array{float, float, string}> in order, each once: the one furthest out
     */
    public static function once(array $places): array
    {
        usort($places, static fn (array $a, array $b): int => $a[0] <=> $b[0]);
        $kept = [];
        foreach ($places as $place) {
            $last = \count($kept) - 1;
            if ($last >= 0 && $place[0] - $kept[$last][0] < self::SAME_MM) {
                $kept[$last] = [$kept[$last][0], max($kept[$last][1], $place[1]), min($kept[$last][2], $place[2])];
            } else {
                $kept[] = $place;
            }
        }

        return $kept;
    }
}
