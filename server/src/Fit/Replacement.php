<?php

declare(strict_types=1);

namespace Plinth\Server\Fit;

use Plinth\Core\Exchange\Json\JsonValue;
use Plinth\Core\Geometry\PixelAffine;
use Plinth\Core\Geometry\PixelPoint;
use Plinth\Server\Change\Base;
use Plinth\Server\Change\Operation;
use Plinth\Server\Change\RowValues;
use Plinth\Server\Change\Workspace;
use Plinth\Server\Http\Refusal;
use Plinth\Server\Source\Drawing;
use Plinth\Server\Source\Page;
use Plinth\Server\Source\Source;

/**
 * Puts a newer page in the place of an older one: drawings, picks and fits are moved to where the same ink lies on the new
 * page, so the model and all that is traced stay where they are. The older page goes.
 */
final readonly class Replacement implements Operation
{
    public static function name(): string
    {
        return 'replace';
    }

    public function apply(Workspace $workspace, JsonValue $wanted, Base $base): void
    {
        $at = $wanted->object(['page'])->get('page')->at;
        $new = $workspace->current(Page::class, RowValues::uuid($wanted->get('page')), $base, $at);
        $oldId = $new->replaces() ?? throw Refusal::invalid(
            'replaces-nothing',
            'This page was not brought in as a newer version of another.',
            $at,
        );
        $old = $workspace->get(Page::class, $oldId);
        $map = self::map($new, $at);
        $scale = sqrt(abs($map->a * $map->e - $map->b * $map->d));
        foreach ($workspace->findBy(Drawing::class, 'page', $old->id()) as $drawing) {
            $box = $map->boxOf($drawing->box());
            $left = max(0.0, min($new->width() - 1.0, $box->left));
            $top = max(0.0, min($new->height() - 1.0, $box->top));
            $workspace->set($drawing, [
                'page' => $new->id()->toRfc4122(), 'turns' => ($drawing->turns() + (int) round($map->turnDegrees() / 90.0) + 4) % 4, 'left' => $left, 'top' => $top,
                'width' => max(
                    1.0,
                    min($new->width() - $left, $box->right() - $left),
                ), 'height' => max(1.0, min($new->height() - $top, $box->bottom() - $top)),
            ], $at);
            foreach ($workspace->findBy(Pick::class, 'drawing', $drawing->id()) as $pick) {
                $to = $map->of(new PixelPoint($pick->x(), $pick->y()));
                $workspace->set($pick, ['x' => $to->x, 'y' => $to->y, 'sigmaPx' => $scale * $pick->sigmaPx()], $at);
            }
            $fit = $workspace->find(DrawingFit::class, $drawing->id());
            if (null !== $fit) {
                $workspace->set(
                    $fit,
                    DrawingFit::valuesOf($map->inverse()->then($fit->pixelToMm()), $fit->basis(), $fit->plusMinusMmPer10m()),
                    $at,
                );
            }
        }
        $workspace->set($new, ['replaces' => null], $at);
        // With its source, where that has no other page.
        $workspace->removeWhole($old, null, $at);
    }

    private static function map(Page $new, string $at): PixelAffine
    {
        $found = $new->registration();
        if (null === $found) {
            throw Refusal::conflict(
                'not-registered',
                'How the newer page lies on the older one is not known yet. Wait for it, or pick the same points on both.',
                $at,
            );
        }
        $m = array_map(static fn (JsonValue $v): float => $v->number(), JsonValue::of($found['map'] ?? null, 'map')->items());

        return new PixelAffine($m[0], $m[1], $m[2], $m[3], $m[4], $m[5]);
    }
}
