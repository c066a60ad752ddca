<?php

declare(strict_types=1);

namespace Plinth\Server\Ink;

use Plinth\Core\Exchange\Json\JsonValue;
use Plinth\Core\Fitting\WrittenFigure;
use Plinth\Core\Fitting\WrittenSize;
use Plinth\Core\Geometry\PixelPoint;
use Plinth\Core\Geometry\PixelToMm;
use Plinth\Core\Ink\Reading\PageFigures;
use Plinth\Server\Fit\Writing;
use Plinth\Server\Source\Drawing;

/** The figures that were read on a drawing, less those that were refused. */
final readonly class FiguresWritten implements Writing
{
    public function __construct(private Findings $findings)
    {
    }

    public function size(Drawing $drawing): ?WrittenSize
    {
        $finding = $this->findings->of($drawing, FindingKind::Figures);
        $said = JsonValue::of($finding->found['drawing'][0] ?? [], 'drawing');
        $map = $said->optional('map');
        if (null === $map) {
            return null;
        }
        [$a, $b, $c, $d, $e, $f, $g, $h, $i] = array_map(static fn (JsonValue $v): float => $v->number(), $map->items());

        return new WrittenSize(
            PixelToMm::ofMatrix([$a, $b, $c, $d, $e, $f, $g, $h, $i]),
            $said->get('sigmaPx')->number(),
            PageFigures::SIGMA_PART,
            array_map(self::figure(...), ReadingsLeft::notRefused($finding, 'figures')),
        );
    }

    /** @param array<mixed> $told */
    private static function figure(array $told): WrittenFigure
    {
        $at = JsonValue::of($told, 'figure');

        return new WrittenFigure(
            $at->get('text')->text(),
            $at->get('mm')->number(),
            new PixelPoint(...$at->get('a')->pair()),
            new PixelPoint(...$at->get('b')->pair()),
        );
    }
}
