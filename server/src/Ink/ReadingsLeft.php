<?php

declare(strict_types=1);

namespace Plinth\Server\Ink;

use Doctrine\ORM\EntityManagerInterface;
use Plinth\Core\Exchange\Json\JsonValue;
use Plinth\Core\Geometry\PixelPoint;
use Plinth\Core\Ink\Reading\AlongGrid;
use Plinth\Server\Fit\KnownLength;
use Plinth\Server\Fit\Pick;
use Plinth\Server\Source\Drawing;
use Plinth\Server\Source\Page;

/** What is written on a drawing, as far as it is neither stated nor refused. */
final readonly class ReadingsLeft
{
    /** A figure is stated when a known length has both its ends this near, px; a reading is the refused one when its box is. */
    private const SAME_PX = 14.0;

    public function __construct(private Findings $findings, private EntityManagerInterface $entities)
    {
    }

    /** @return list<FigureLeft> */
    public function figures(Drawing $drawing): array
    {
        $finding = $this->findings->of($drawing, FindingKind::Figures);
        $stated = null === $finding ? [] : $this->stated($drawing);
        $left = [];
        foreach (self::notRefused($finding, 'figures') as $told) {
            $at = JsonValue::of($told, 'figure');
            $ends = [new PixelPoint(...$at->get('a')->pair()), new PixelPoint(...$at->get('b')->pair())];
            if (!self::isStated($ends[0], $ends[1], $stated)) {
                $left[] = [$told, $at, ...$ends];
            }
        }
        $map = $this->findings->fit($drawing)->pixelToMm();
        $spans = array_map(static fn (array $f): array => [$map->toMm($f[2]), $map->toMm($f[3])], $left);
        $along = AlongGrid::of($spans);
        // How a photograph leans is told by all of its lines where they show it, else by those of its figures.
        $squares = 'lines' === $this->slant($drawing) ? array_fill(0, \count($left), false) : AlongGrid::squaring($spans, $along);

        return array_map(static fn (array $f, int $i): FigureLeft => new FigureLeft(
            $f[1]->get('text')->text(),
            $f[1]->get('mm')->number(),
            $f[2],
            $f[3],
            $f[1]->get('sigmaPx')->number(),
            $along[$i],
            $squares[$i],
            $spans[$i][0]->distanceTo($spans[$i][1]),
            $f[1]->get('isBar')->boolean(),
            $f[0],
        ), $left, array_keys($left));
    }

    /** @return list<array<mixed>> */
    public function rooms(Drawing $drawing): array
    {
        return self::notRefused($this->findings->of($drawing, FindingKind::Figures), 'rooms');
    }

    /**
     * What says how a photographed drawing leans: all of its lines, or the figures alone; none where it lies flat.
     *
     * @return 'none'|'lines'|'figures'
     */
    public function slant(Drawing $drawing): string
    {
        $finding = $this->findings->of($drawing, FindingKind::Figures);
        if (true !== ($finding->found['drawing'][0]['photograph'] ?? null)) {
            return 'none';
        }
        $page = $this->entities->find(Page::class, $drawing->beside($drawing->page())->criteria());

        return true === $page?->leaning()?->isSlanted() ? 'lines' : 'figures';
    }

    /**
     * Where a reading lies, as it is remembered when it is refused.
     *
     * @param array<mixed> $reading
     *
     * @return list<float> left, top, right, bottom on the page, px
     */
    public static function box(array $reading): array
    {
        return array_map(static fn (JsonValue $v): float => $v->number(), JsonValue::of($reading, 'reading')->get('box')->items());
    }

    /** @return list<array<mixed>> */
    public static function notRefused(?Finding $finding, string $what): array
    {
        $isRefused = static function (array $reading) use ($finding): bool {
            $box = self::box($reading);
            foreach ($finding->refused ?? [] as $refused) {
                $apart = array_filter($box, static fn (float $v, int $i): bool => abs($v - $refused[$i]) >= self::SAME_PX, \ARRAY_FILTER_USE_BOTH);
                if ([] === $apart) {
                    return true;
                }
            }

            return false;
        };

        return array_values(array_filter($finding->found[$what] ?? [], static fn (array $r): bool => !$isRefused($r)));
    }

    /** @param list<array{PixelPoint, PixelPoint}> $stated */
    private static function isStated(PixelPoint $a, PixelPoint $b, array $stated): bool
    {
        foreach ($stated as [$p, $q]) {
            if (min(max($a->distanceTo($p), $b->distanceTo($q)), max($a->distanceTo($q), $b->distanceTo($p))) < self::SAME_PX) {
                return true;
            }
        }

        return false;
    }

    /** @return list<array{PixelPoint, PixelPoint}> ends of the known lengths */
    private function stated(Drawing $drawing): array
    {
        $of = ['project' => $drawing->project(), 'drawing' => $drawing->id()];
        $picks = [];
        foreach ($this->entities->getRepository(Pick::class)->findBy($of) as $pick) {
            $picks[$pick->id()->toRfc4122()] = new PixelPoint($pick->x(), $pick->y());
        }
        $stated = [];
        foreach ($this->entities->getRepository(KnownLength::class)->findBy($of) as $length) {
            [$a, $b] = [$picks[$length->a()->toRfc4122()] ?? null, $picks[$length->b()->toRfc4122()] ?? null];
            if (null !== $a && null !== $b) {
                $stated[] = [$a, $b];
            }
        }

        return $stated;
    }
}
