<?php

declare(strict_types=1);

namespace Plinth\Core\Sheets;

/** What is drawn on a sheet: pictures first, then areas, lines, and words. */
final readonly class SheetInk
{
    /**
     * @param list<InkArea> $areas
     * @param list<InkLine> $lines
     * @param list<InkText> $texts
     * @param list<InkPicture> $pictures
     */
    public function __construct(public array $areas = [], public array $lines = [], public array $texts = [], public array $pictures = [])
    {
    }

    public function with(self $other): self
    {
        return self::all([$this, $other]);
    }

    /** @param list<self> $inks */
    public static function all(array $inks): self
    {
        return new self(
            array_merge([], ...array_map(static fn (self $i): array => $i->areas, $inks)),
            array_merge([], ...array_map(static fn (self $i): array => $i->lines, $inks)),
            array_merge([], ...array_map(static fn (self $i): array => $i->texts, $inks)),
            array_merge([], ...array_map(static fn (self $i): array => $i->pictures, $inks)),
        );
    }

    /**
     * The same elsewhere on paper, with words that can be pointed at.
     *
     * @param string $key of its words
     * @param float $dx mm to the right
     * @param float $dy mm down
     */
    public function marked(string $key, float $dx = 0.0, float $dy = 0.0): self
    {
        return new self(
            array_map(
                static fn (InkArea $a): InkArea => new InkArea(
                    array_map(static fn (array $ring): array => self::off($ring, $dx, $dy), $a->rings),
                    $a->grey,
                    $a->colour,
                ),
                $this->areas,
            ),
            array_map(
                static fn (InkLine $l): InkLine => new InkLine(
                    self::off($l->points, $dx, $dy),
                    $l->width,
                    $l->dashes,
                    $l->closed,
                    $l->key,
                    $l->colour,
                ),
                $this->lines,
            ),
            array_map(
                static fn (InkText $t): InkText => new InkText(
                    $t->x + $dx,
                    $t->y + $dy,
                    $t->words,
                    $t->height,
                    $t->anchor,
                    $t->degrees,
                    $t->bold,
                    $key,
                ),
                $this->texts,
            ),
            array_map(
                static fn (InkPicture $p): InkPicture => new InkPicture(
                    $p->bytes,
                    $p->type,
                    [$p->origin[0] + $dx, $p->origin[1] + $dy],
                    $p->right,
                    $p->down,
                ),
                $this->pictures,
            ),
        );
    }

    /**
     * @param list<array{float, float}> $points
     *
     * @return list<array{float, float}>
     */
    private static function off(array $points, float $dx, float $dy): array
    {
        return array_map(static fn (array $p): array => [$p[0] + $dx, $p[1] + $dy], $points);
    }

    /** @return array{float, float, float, float}|null how far it reaches, least x and y, most x and y, mm; null where there is nothing */
    public function bounds(): ?array
    {
        [$x1, $y1, $x2, $y2] = [\INF, \INF, -\INF, -\INF];
        foreach ($this->chains() as $points) {
            foreach ($points as [$x, $y]) {
                $x1 = $x < $x1 ? $x : $x1;
                $x2 = $x > $x2 ? $x : $x2;
                $y1 = $y < $y1 ? $y : $y1;
                $y2 = $y > $y2 ? $y : $y2;
            }
        }

        return $x1 > $x2 ? null : [$x1, $y1, $x2, $y2];
    }

    /** @return \Generator<list<array{float, float}>> places of all that is on it */
    private function chains(): \Generator
    {
        foreach ($this->areas as $area) {
            yield from $area->rings;
        }
        foreach ($this->lines as $line) {
            yield $line->points;
        }
        foreach ($this->texts as $text) {
            yield $text->room();
        }
        foreach ($this->pictures as $p) {
            yield [$p->origin, [$p->origin[0] + $p->right[0] + $p->down[0], $p->origin[1] + $p->right[1] + $p->down[1]]];
        }
    }
}
