<?php

declare(strict_types=1);

namespace Plinth\Core\Ink\Reading;

use Plinth\Core\Geometry\PixelBox;
use Plinth\Core\Geometry\PixelPoint;
use Plinth\Core\Geometry\PixelToMm;
use Plinth\Core\Geometry\Point;
use Plinth\Core\Ink\Page\Blobs;
use Plinth\Core\Ink\Page\EdgePoints;
use Plinth\Core\Ink\Page\GreyRaster;
use Plinth\Core\Ink\Page\PageInk;
use Plinth\Core\Ink\Picks\PickRefinement;
use Plinth\Core\Ink\Reading\Internal\DimensionLines;
use Plinth\Core\Ink\Reading\Internal\FigureCandidate;
use Plinth\Core\Ink\Reading\Internal\FigureGrammar;
use Plinth\Core\Ink\Reading\Internal\FigureKind;
use Plinth\Core\Ink\Reading\Internal\LabelledBar;
use Plinth\Core\Ink\Reading\Internal\Lettering;
use Plinth\Core\Ink\Reading\Internal\LetteringInk;
use Plinth\Core\Ink\Reading\Internal\LetteringRows;
use Plinth\Core\Ink\Reading\Internal\LetteringSizes;
use Plinth\Core\Ink\Reading\Internal\LetterNet;
use Plinth\Core\Ink\Reading\Internal\LetterStrip;
use Plinth\Core\Ink\Reading\Internal\LinesOut;
use Plinth\Core\Ink\Reading\Internal\Reading;
use Plinth\Core\Ink\Reading\Internal\SizeByFigures;
use Plinth\Core\Ink\Reading\Internal\Way;

/**
 * The figures of a drawing of which nothing is known: not its size, nor its turn, nor which way up it lies. Figures are found by their
 * lettering, read in several ways each, held against the dimension lines beside them in several ways each, and taken where they agree
 * with each other on how large the drawing is.
 */
final readonly class PageFigures
{
    /** part of a length by which what is drawn is off what is written at it, standard deviation */
    public const SIGMA_PART = SizeByFigures::DRAWN;
    /** px on the longer side at which directions are told */
    private const COARSE_SIDE = 1500;
    /** part of the work that is done once the ink is prepared, and once all is read */
    private const PREPARED = 0.35;
    private const READ = 0.95;
    /** directions of lines: three at most, 12° apart, with an eighth of the first one's lines */
    private const DIRECTIONS = [0.12, 12.0, 3];
    /** px: lettering below this is read on twice as many pixels */
    private const SMALL = 19.0;
    /** logarithms: how likely the best reading is at least, all of it and by character; by trial */
    private const LEAST = -6.0;
    private const LEAST_BY_CHARACTER = -1.2;
    /** a row's length in its heights: two letters at least, a figure in feet with a fraction at most, with room to spare */
    private const WIDE = [1.0, 14.0];
    /** rows that are read, and figures that are held against each other: more is hatching, and no drawing has so many dimensions */
    private const MOST_ROWS = 1200;
    private const MOST_FIGURES = 200;
    /** readings that are kept, and how much less likely than the best they may be */
    private const READINGS = 10;
    private const LESS_LIKELY = 9.0;
    /** logarithm by which one row of lettering speaks at most for which way up the page is */
    private const WAY_UP = 6.0;
    /** and what all of it comes to where the way up is sure; by trial */
    private const SURE = 12.0;
    /** how far a mark lies from the line that it is part of, part of the height of lettering; a figure's ends run so straight across it */
    private const NEAR = 0.4;
    private const ACROSS_DEGREES = 8.0;
    /** parts of a span at which the dimension line is looked at */
    private const QUARTERS = [0.25, 0.75];
    /** part by which a span may be another once its ends are refined: what is further off has gone to other lines */
    private const SAME_LENGTH = 0.25;
    /** px that an end is known to where no line marks it */
    private const COARSE_PX = 1.5;
    /** figures, and different ones along each axis, that make a size to trust; by trial (bench figures) */
    private const ENOUGH = [6, 3];
    private const ENOUGH_WITH_BAR = [4, 2];
    /** and where it lies flat, along the axis that has more and the one that has less: how far it may be stretched is known beforehand */
    private const ENOUGH_IF_FLAT = [6, 3, 1];
    /** part of its length by which a scale bar that agrees with them may be off; by trial */
    private const BAR_AGREES = 0.015;
    /** how likely a figure's reading is at least to say in which unit the drawing is, a logarithm; figures that say so; their characters */
    private const UNIT = [-2.0, 2, 4];

    /**
     * @param list<PageFigure> $figures that agree with each other
     * @param PixelToMm|null $map on which they agree; null where they do not
     * @param float $sigmaPx by which marks are off on this page, px
     * @param bool $isSure whether the map may be trusted: enough figures agree, along both axes
     * @param bool $isSureIfFlat whether it may be where its lines say that it lies flat: most of the figures run along one axis
     * @param bool $isPhotographed whether they agree only if the drawing was photographed at a slant
     * @param int|null $turns quarter turns, counter-clockwise as seen, that make the figures readable; null where it is not sure
     * @param ReadScaleBar|null $scaleBar null where there is none, or what it stands for is not sure
     */
    private function __construct(
        public array $figures,
        public ?PixelToMm $map,
        public float $sigmaPx,
        public bool $isSure,
        public bool $isSureIfFlat,
        public bool $isPhotographed,
        public ?int $turns,
        public ?ReadScaleBar $scaleBar,
    ) {
    }

    /** @param callable(float): void $onProgress part done, 0 to 1; asked often, so that whoever waits hears that the work goes on */
    public static function of(PageInk $page, PixelBox $box, callable $onProgress): self
    {
        $found = self::prepared($page, $box, $onProgress);
        if (null === $found) {
            return new self([], null, 0.0, false, false, false, null, null);
        }
        [$ink, $directions, $sizes, $bar] = $found;
        $figures = [];
        foreach (self::rows($ink, $directions, $sizes, $onProgress) as [$row, $strip, $isUpright, $size, $grown]) {
            $figure = self::figure($ink, $grown, $row, $strip, $isUpright, $size);
            if (null !== $figure) {
                $figures[] = $figure;
            }
        }
        usort($figures, static fn (FigureCandidate $a, FigureCandidate $b): int => $b->worth() <=> $a->worth());
        $figures = \array_slice($figures, 0, self::MOST_FIGURES);
        $turn = deg2rad($directions[0]);
        $goesOn = static fn () => $onProgress(self::READ);
        $fit = SizeByFigures::of($figures, $turn, $ink->width, $ink->height, $goesOn);
        $bar = $bar?->read(self::inFeet($figures));
        $told = null === $fit
            ? new self([], null, 0.0, false, false, false, null, $bar)
            : self::told($page, $fit, $ink, $turn, $bar, $goesOn);
        $onProgress(1.0);

        return $told;
    }

    /**
     * Every row of lettering as the net is given it, to learn from.
     *
     * @return iterable<array{PixelPoint, list<list<float>>}> its middle on the page, and the columns of its strip read along its direction
     */
    public static function strips(PageInk $page, PixelBox $box): iterable
    {
        $quiet = static function (float $done): void {};
        $found = self::prepared($page, $box, $quiet);
        if (null === $found) {
            return;
        }
        [$ink, $directions, $sizes] = $found;
        foreach (self::rows($ink, $directions, $sizes, $quiet) as [$row, $strip]) {
            yield [$ink->onPage(...$row->middle()), $strip];
        }
    }

    /** The map on which the figures agree, turned so that they are read upright; null where either is not sure. */
    public function upright(): ?PixelToMm
    {
        return null === $this->turns || !$this->isSure ? null : $this->map?->turned($this->turns * \M_PI_2, new Point(0.0, 0.0));
    }

    /** @return list<PageFigure> */
    public function sure(): array
    {
        return array_values(array_filter($this->figures, static fn (PageFigure $f): bool => $f->isSure()));
    }

    /**
     * The ink at the size that its lettering is read at, directions of its lines in degrees from −45 to 45, and heights of its lettering.
     *
     * @param callable(float): void $onProgress
     *
     * @return array{LetteringInk, non-empty-list<float>, list<float>, LabelledBar|null}|null null where there are no lines
     */
    private static function prepared(PageInk $page, PixelBox $box, callable $onProgress): ?array
    {
        $ink = LetteringInk::of($page, $box, static fn (float $done) => $onProgress(0.15 * $done));
        $raster = (new GreyRaster($ink->width, $ink->height, $ink->bytes))->inverted();
        $directions = EdgePoints::of($raster->shrunk(max(1, (int) ceil(max($ink->width, $ink->height) / self::COARSE_SIDE))))
            ?->directions(self::DIRECTIONS[0], self::DIRECTIONS[1]) ?? [];
        $onProgress(0.25);
        $blobs = Blobs::joined($ink->rows());
        $onProgress(0.3);
        $sizes = LetteringSizes::of($blobs);
        if ([] === $directions) {
            return null;
        }
        $bar = LabelledBar::in($ink, $blobs, deg2rad($directions[0]), static fn () => $onProgress(0.3));
        $onProgress(0.32);
        if (($sizes[0] ?? self::SMALL) < self::SMALL) {
            $ink = $ink->doubled(static fn () => $onProgress(0.33));
            $sizes = array_map(static fn (float $s): float => 2.0 * $s, $sizes);
        }
        $onProgress(self::PREPARED);

        $directions = array_map(
            static fn (float $degrees): float => fmod($degrees + 135.0, 90.0) - 45.0,
            \array_slice($directions, 0, self::DIRECTIONS[2]),
        );

        return [$ink, $directions, $sizes, $bar];
    }

    /**
     * Rows with their strips, whether they are upright, the usual height there, and the ink as far as lines hold together.
     *
     * @param non-empty-list<float> $directions degrees
     * @param list<float> $sizes px
     * @param callable(float): void $onProgress
     *
     * @return iterable<array{Lettering, list<list<float>>, bool, float, LetteringInk}>
     */
    private static function rows(LetteringInk $ink, array $directions, array $sizes, callable $onProgress): iterable
    {
        $main = deg2rad($directions[0]);
        $grown = $ink->grown(1);
        $steps = 2 * \count($sizes) * \count($directions);
        $done = 0;
        $count = 0;
        $goesOn = static function () use (&$done, $steps, $onProgress): void {
            $onProgress(self::PREPARED + (self::READ - self::PREPARED) * $done / $steps);
        };
        foreach ($sizes as $size) {
            $free = LinesOut::of($ink->rows(), $directions, $size, $goesOn);
            $goesOn();
            $letters = $ink->under(LinesOut::grown(implode('', $free), $ink->width, 1));
            $goesOn();
            $blobs = Blobs::joined($free);
            $goesOn();
            foreach ($directions as $degrees) {
                foreach ([0.0, 90.0] as $quarter) {
                    $direction = deg2rad($degrees + $quarter);
                    $isUpright = abs(cos($direction - $main)) < \M_SQRT1_2;
                    foreach (LetteringRows::in($blobs, $direction, $size) as $row) {
                        // A single letter says nothing; letters that touch are one piece.
                        if ($row->length() >= self::WIDE[0] * $row->height() && $row->length() <= self::WIDE[1] * $row->height()) {
                            if (++$count > self::MOST_ROWS) {
                                return;
                            }
                            $goesOn();
                            $row = LetterStrip::widened($letters, $row);
                            yield [$row, LetterStrip::of($letters, $row), $isUpright, $size, $grown];
                        }
                    }
                    ++$done;
                    $goesOn();
                }
            }
        }
    }

    /** @param list<list<float>> $strip */
    private static function figure(
        LetteringInk $ink,
        LetteringInk $grown,
        Lettering $row,
        array $strip,
        bool $isUpright,
        float $size,
    ): ?FigureCandidate {
        $net = LetterNet::shipped();
        $grammar = FigureGrammar::shared();
        $read = [
            $grammar->readings($net->read($strip)),
            $grammar->readings($net->read(LetterStrip::turned($strip))),
        ];
        $likely = array_map(static fn (array $r): float => $r[0]->likely ?? -25.0, $read);
        $k = $likely[1] > $likely[0] ? 1 : 0;
        $best = $read[$k][0] ?? null;
        if (null === $best || $best->likely < self::LEAST || $best->likely / \strlen($best->text) < self::LEAST_BY_CHARACTER) {
            return null;
        }
        $readings = array_filter($read[$k], static fn (Reading $r): bool => $r->likely > $best->likely - self::LESS_LIKELY);

        return new FigureCandidate(
            $row,
            1 === $k,
            $isUpright,
            [$best, ...\array_slice($readings, 1, self::READINGS - 1)],
            DimensionLines::spans($ink, $grown, $row, 1 === $k, $size),
            $likely[$k] - $likely[1 - $k],
        );
    }

    /**
     * Whether figures are in feet and inches; null where too few are read well enough to say so.
     *
     * @param list<FigureCandidate> $figures
     */
    private static function inFeet(array $figures): ?bool
    {
        // With a dimension line beside them, and long enough to be no label of something else.
        $dimensions = array_filter($figures, static fn (FigureCandidate $f): bool => [] !== $f->spans);
        $best = array_map(static fn (FigureCandidate $f): Reading => $f->readings[0], $dimensions);
        $well = array_filter($best, static fn (Reading $r): bool => $r->likely >= self::UNIT[0] && \strlen($r->text) >= self::UNIT[2]);
        $feet = array_filter($well, static fn (Reading $r): bool => FigureKind::FeetInches === $r->kind);

        return \count($well) < self::UNIT[1] ? null : 2 * \count($feet) > \count($well);
    }

    /** @param callable(): void $goesOn */
    private static function told(
        PageInk $page,
        SizeByFigures $fit,
        LetteringInk $ink,
        float $turn,
        ?ReadScaleBar $bar,
        callable $goesOn,
    ): self {
        $map = PixelToMm::ofMatrix($ink->fromPage($fit->mapping->matrix($turn, $ink->width / 2.0, $ink->height / 2.0)));
        $figures = [];
        $different = [[], []];
        $speaks = [0.0, 0.0];
        foreach ($fit->agreed as [$way, $off, $adds]) {
            $goesOn();
            $figure = $way->figure;
            $read = self::onThePage($page, $way, $ink, $map, new FigureEvidence(
                $way->reading->likely,
                $way->span->likely,
                $off,
                $way->reading === $figure->readings[0],
                $adds,
                \strlen($way->reading->text),
                $way->long / $figure->row->height(),
                $fit->px,
                \count($fit->agreed),
            ));
            $figures[] = $read;
            if ($read->isSure()) {
                $different[$figure->isUpright ? 1 : 0][(string) round($read->mm)] = true;
                $speaks[$figure->isUpright ? 1 : 0] += ($figure->isTurned ? -1.0 : 1.0) * min(self::WAY_UP, $figure->surer);
            }
        }
        $sure = \count(array_filter($figures, static fn (PageFigure $f): bool => $f->isSure()));
        $both = min(array_map(\count(...), $different));
        $agrees = null !== $bar && abs($map->toMm($bar->a)->distanceTo($map->toMm($bar->b)) / $bar->mm - 1.0) < self::BAR_AGREES;
        $isSure = $sure >= self::ENOUGH[0] && $both >= self::ENOUGH[1]
            || $agrees && $sure >= self::ENOUGH_WITH_BAR[0] && $both >= self::ENOUGH_WITH_BAR[1];

        $isSureIfFlat = !$fit->isPhotographed
            && $sure >= self::ENOUGH_IF_FLAT[0]
            && max(array_map(\count(...), $different)) >= self::ENOUGH_IF_FLAT[1]
            && $both >= self::ENOUGH_IF_FLAT[2];

        return new self(
            $figures,
            $map,
            $fit->px * $ink->pixel,
            $isSure,
            $isSureIfFlat,
            $fit->isPhotographed,
            self::turns(...$speaks),
            $bar,
        );
    }

    /** Its ends where the dimension line meets the lines that mark them, to a part of a pixel. */
    private static function onThePage(PageInk $page, Way $way, LetteringInk $ink, PixelToMm $map, FigureEvidence $evidence): PageFigure
    {
        [$a, $b] = [$ink->onPage(...$way->span->a), $ink->onPage(...$way->span->b)];
        $reach = self::NEAR * $way->figure->row->height() * $ink->pixel;
        $degrees = rad2deg(atan2($a->y - $b->y, $b->x - $a->x));
        $scale = $map->mmPerPixelAt($a);
        $near = static fn (PixelPoint $at, float $along): ?PixelPoint => PickRefinement::lineNear(
            $page,
            $at,
            $reach,
            $along,
            self::ACROSS_DEGREES,
            $scale,
        )?->at;
        // The dimension line itself, away from marks and lettering: it is what a drawing is squared by.
        $between = static fn (float $part): PixelPoint => new PixelPoint($a->x + $part * ($b->x - $a->x), $a->y + $part * ($b->y - $a->y));
        [$p, $q] = [$near($between(self::QUARTERS[0]), $degrees), $near($between(self::QUARTERS[1]), $degrees)];
        if (null !== $p && null !== $q && $p->distanceTo($q) > 1.0) {
            [$a, $b] = [$a->footOn($p, $q), $b->footOn($p, $q)];
        }
        $long = max(1e-9, $a->distanceTo($b));
        [$ux, $uy] = [($b->x - $a->x) / $long, ($b->y - $a->y) / $long];
        $ends = [];
        $sigma = 0.0;
        foreach ([$a, $b] as $end) {
            $line = PickRefinement::lineNear($page, $end, $reach, $degrees + 90.0, self::ACROSS_DEGREES, $scale);
            $along = null === $line ? 0.0 : ($line->at->x - $end->x) * $ux + ($line->at->y - $end->y) * $uy;
            $ends[] = new PixelPoint($end->x + $along * $ux, $end->y + $along * $uy);
            $sigma = max($sigma, $line->sigmaPx ?? self::COARSE_PX);
        }
        // Of a short one both ends may come to lie on one line.
        if (abs($ends[0]->distanceTo($ends[1]) / $long - 1.0) > self::SAME_LENGTH) {
            [$ends, $sigma] = [[$a, $b], self::COARSE_PX];
        }
        $row = $way->figure->row;
        [$x, $y] = $row->middle();
        [$c, $s] = [abs(cos($row->runs())) / 2.0, abs(sin($row->runs())) / 2.0];
        [$w, $h] = [$row->length() * $c + $row->height() * $s, $row->length() * $s + $row->height() * $c];
        [$from, $to] = [$ink->onPage($x - $w, $y - $h), $ink->onPage($x + $w, $y + $h)];

        return new PageFigure(
            $way->reading->written(),
            $way->reading->mm,
            $way->reading->stepMm,
            $ends[0],
            $ends[1],
            $sigma,
            [$from->x, $from->y, $to->x, $to->y],
            $evidence,
        );
    }

    /** @param float $level how much what runs along the grid's first axis speaks for being read along it, and $upright likewise */
    private static function turns(float $level, float $upright): ?int
    {
        // Level figures alone say whether the page stands on its head, not that they are the level ones.
        if (min(abs($level), abs($upright)) < self::SURE) {
            return null;
        }
        // Upright lettering is read from the right: along the second axis it runs up, which is against v.
        $isLevel = $level > 0.0;
        $isDown = $upright > 0.0;

        return match (true) {
            $isLevel && !$isDown => 0,
            $isLevel => 1,
            $isDown => 2,
            default => 3,
        };
    }
}
