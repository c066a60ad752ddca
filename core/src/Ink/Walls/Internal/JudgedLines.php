<?php

declare(strict_types=1);

namespace Plinth\Core\Ink\Walls\Internal;

/**
 * Which lines are walls, judged in rounds: each by itself at first, then each among those that the round before has taken for walls.
 *
 * @internal
 */
final readonly class JudgedLines
{
    /** A wall is so much longer than thick. */
    private const SLENDER = 1.6;
    /** Somewhere it shows for so much longer than it is thick: columns in a row are no wall. */
    private const LONGER = 1.2;
    /** Lines at least so likely stand for walls when others are judged, and are looked at on the page. */
    private const TAKEN = 0.3;
    /** Of two on each other the likelier one is taken rather than the longer one, by this power: it may be longer by a window. */
    private const PURE = 3.0;
    /** A loose line is taken before a ruled one on it only if it shows for so much longer. */
    private const LOOSE = 0.35;
    /** probabilities nearer to 0 and 1 say no more */
    private const SURE = 1e-4;

    /**
     * @param list<WallLine> $lines
     * @param list<array<string, float>> $alone what each shows by itself
     * @param list<float> $confidence 0 to 1
     * @param array<int, true> $taken
     */
    private function __construct(
        public array $lines,
        private LineEvidence $evidence,
        private array $alone,
        private array $confidence,
        private array $taken,
    ) {
    }

    /** @param list<WallLine> $lines */
    public static function unjudged(array $lines): self
    {
        $lines = array_values(array_filter(
            $lines,
            static fn (WallLine $w): bool => $w->length() >= max(WallLines::LEAST_LENGTH, self::SLENDER * $w->thickness)
                && $w->longest() >= self::LONGER * $w->thickness,
        ));
        $evidence = new LineEvidence($lines);

        return new self($lines, $evidence, $evidence->alone(), [], []);
    }

    /**
     * @param list<WallLine> $lines
     *
     * @return list<WallLine> those that are likely walls, each with how likely it is; no two on each other
     */
    public static function walls(array $lines): array
    {
        $judged = self::unjudged($lines);
        foreach (LineNet::shipped() as $net) {
            $judged = $judged->by($net);
        }

        return array_map(
            static fn (int $i): WallLine => $judged->lines[$i]->as($judged->confidence[$i]),
            array_keys($judged->taken),
        );
    }

    /** @return list<array<string, float>> what the next round judges by, line by line, by name and always in one order */
    public function values(): array
    {
        if ([] === $this->confidence) {
            return $this->alone;
        }
        $values = [];
        foreach ($this->evidence->among($this->confidence, $this->taken) as $i => $among) {
            $p = max(self::SURE, min(1.0 - self::SURE, $this->confidence[$i]));
            $values[] = [...$this->alone[$i], ...$among, 'before' => log($p / (1.0 - $p))];
        }

        return $values;
    }

    /** After one more round. */
    public function by(LineNet $net): self
    {
        $confidence = array_map(static fn (array $values): float => $net->of(array_values($values)), $this->values());

        return new self($this->lines, $this->evidence, $this->alone, $confidence, $this->taken($confidence));
    }

    /**
     * @param list<float> $confidence
     *
     * @return array<int, true>
     */
    private function taken(array $confidence): array
    {
        $worth = [];
        foreach ($confidence as $i => $p) {
            if ($p >= self::TAKEN) {
                $worth[$i] = $p ** self::PURE * $this->lines[$i]->seen() * ($this->lines[$i]->look->isLoose ? self::LOOSE : 1.0);
            }
        }
        arsort($worth);
        $taken = [];
        foreach (array_keys($worth) as $i) {
            foreach ($this->evidence->rivals($i) as $k => $overlap) {
                if (isset($taken[$k]) && $overlap > LineEvidence::ON_OTHER) {
                    continue 2;
                }
            }
            $taken[$i] = true;
        }

        return $taken;
    }
}
