<?php

declare(strict_types=1);

namespace Plinth\Cli\Command;

use Plinth\Cli\Json;
use Plinth\Core\Exchange\Json\JsonValue;
use Plinth\Core\Geometry\Point;
use Plinth\Core\Roof\Roof;
use Plinth\Core\Roof\RoofEdge;
use Plinth\Core\Roof\RoofFacet;
use Plinth\Core\Roof\RoofLine;
use Symfony\Component\Console\Attribute\AsCommand;
use Symfony\Component\Console\Command\Command;
use Symfony\Component\Console\Input\InputInterface;
use Symfony\Component\Console\Output\OutputInterface;

#[AsCommand('roof', 'An outline and its pitches to the facets of a roof', help: <<<'TEXT'
    Reads {"rings": [[{"x", "y", "pitch", "eaves"}]]}: the outer ring and then courts; over the edge from each corner to the next a slope
    of so many degrees rises from its eaves (mm, 0 where nothing is said), or a gable stands where there is no pitch. Answers facets with
    their corners and areas, and ridges, hips, valleys and verges with their lengths, in mm and m².
    TEXT)]
final class RoofCommand extends Command
{
    protected function configure(): void
    {
        Json::option($this, 'the outline');
    }

    private static function edge(JsonValue $corner): RoofEdge
    {
        $pitch = $corner->optional('pitch');

        return null === $pitch ? RoofEdge::gable() : RoofEdge::pitched($pitch->number(), $corner->optional('eaves')?->number() ?? 0.0);
    }

    protected function execute(InputInterface $input, OutputInterface $output): int
    {
        [$outline, $edges] = [[], []];
        foreach (Json::document($input)->object(['rings'])->list('rings') as $ring) {
            $corners = array_map(static fn (JsonValue $c): JsonValue => $c->object(['x', 'y', 'pitch', 'eaves']), $ring->items());
            $outline[] = array_map(static fn (JsonValue $c): Point => new Point($c->get('x')->number(), $c->get('y')->number()), $corners);
            $edges[] = array_map(self::edge(...), $corners);
        }
        $roof = Roof::over($outline, $edges);
        $slopes = array_filter($roof->facets, static fn (RoofFacet $f): bool => $f->isSlope);
        Json::write($output, [
            'slopesM2' => array_sum(array_map(static fn (RoofFacet $f): float => $f->area() / 1e6, $slopes)),
            'facets' => array_map(static fn (RoofFacet $f): array => [
                'ring' => $f->ring, 'edge' => $f->edge, 'slope' => $f->isSlope, 'areaM2' => $f->area() / 1e6, 'corners' => $f->corners,
            ], $roof->facets),
            'lines' => array_map(static fn (RoofLine $l): array => [
                'kind' => $l->kind->value, 'lengthMm' => $l->length(), 'from' => $l->from, 'to' => $l->to,
            ], $roof->lines),
        ]);

        return self::SUCCESS;
    }
}
