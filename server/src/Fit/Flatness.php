<?php

declare(strict_types=1);

namespace Plinth\Server\Fit;

use Doctrine\ORM\EntityManagerInterface;
use Plinth\Core\Geometry\PixelPoint;
use Plinth\Core\Ink\Picks\TracedLine;
use Plinth\Core\Units\Length;
use Plinth\Server\Http\Refusal;
use Plinth\Server\Source\Drawing;
use Plinth\Server\Source\InkOfPages;

/** Follows the ink of the lines that somebody picked as straight: where they bow, the paper does not lie flat or a lens has bent them. */
final readonly class Flatness
{
    private const REACH_PX = 14.0;
    /** A bow below this is the draughtsman's, px. */
    private const LEAST_PX = 1.5;

    public function __construct(private EntityManagerInterface $entities, private InkOfPages $ink)
    {
    }

    /** @return array<string, mixed> */
    public function of(Drawing $drawing): array
    {
        $ink = $this->ink->of($drawing) ?? throw Refusal::conflict(
            'not-ready',
            'This page is still being read: its ink cannot be looked at yet.',
        );
        $fit = $this->entities->find(DrawingFit::class, $drawing->key()->criteria()) ?? throw Refusal::notFound();
        $map = $fit->pixelToMm();
        $picks = [];
        foreach ($this->entities->getRepository(Pick::class)->findBy([
            'project' => $drawing->project(),
            'drawing' => $drawing->id(),
        ]) as $pick) {
            $picks[$pick->id()->toRfc4122()] = new PixelPoint($pick->x(), $pick->y());
        }
        $lines = [];
        $bowed = [];
        foreach ($this->entities->getRepository(GridPick::class)->findBy(
            ['project' => $drawing->project(), 'drawing' => $drawing->id()],
            ['id' => 'ASC'],
        ) as $line) {
            $core = $line->toCore();
            [$a, $b] = [$picks[$core->a], $picks[$core->b]];
            $scale = $map->mmPerPixelAt($a);
            $traced = TracedLine::between($ink, $a, $b, self::REACH_PX, $scale);
            if (null === $traced) {
                continue;
            }
            // What the lens of the fit explains is no bow.
            $bow = $traced->bowPx - self::bent($fit, $traced);
            $isBowed = abs($bow) > max(self::LEAST_PX, 4.0 * $traced->bowSigmaPx);
            $lines[] = [
                'id' => $core->id,
                'bowPx' => $bow,
                'plusMinusPx' => 2.0 * $traced->bowSigmaPx,
                'bowMm' => $bow * $scale,
                'bowed' => $isBowed,
            ];
            if ($isBowed) {
                $bowed[] = abs($bow * $scale);
            }
        }

        return [
            'lines' => $lines,
            'message' => [] === $bowed ? null : \sprintf(
                '%s picked as straight %s by up to %s on the page: the paper is curled or folded there, or a lens bends it. What lies between is off by as much; state lengths near what you trace, or bring it in flat.',
                1 === \count($bowed) ? 'A line' : \count($bowed).' lines',
                1 === \count($bowed) ? 'bows' : 'bow',
                Length::told(max($bowed)),
            ),
        ];
    }

    /** How far the fit's lens bows a straight line at its middle, px, to the left of it as seen. */
    private static function bent(DrawingFit $fit, TracedLine $line): float
    {
        $lens = $fit->pixelToMm()->lens;
        if (null === $lens) {
            return 0.0;
        }
        [$a, $b] = [$lens->straight($line->a), $lens->straight($line->b)];
        $middle = $lens->bent(new PixelPoint(($a->x + $b->x) / 2.0, ($a->y + $b->y) / 2.0));
        $length = $line->a->distanceTo($line->b);

        return (($middle->x - $line->a->x) * ($line->b->y - $line->a->y) - ($middle->y - $line->a->y) * ($line->b->x - $line->a->x)) / $length;
    }
}
