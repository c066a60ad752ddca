<?php

declare(strict_types=1);

namespace Plinth\Server\Plan;

use Plinth\Core\Exchange\Json\JsonValue;
use Plinth\Core\Geometry\Point;
use Plinth\Core\Plan\Editing\Joining;
use Plinth\Core\Plan\Model\OpeningKind;
use Plinth\Core\Plan\Model\Wall as CoreWall;
use Plinth\Server\Change\Base;
use Plinth\Server\Change\Operation;
use Plinth\Server\Change\Raw;
use Plinth\Server\Change\RowValues;
use Plinth\Server\Change\Workspace;
use Plinth\Server\Http\Refusal;
use Plinth\Server\Project\Storey;
use Plinth\Server\SettingOut\Column;
use Symfony\Component\Uid\Uuid;
use Symfony\Component\Uid\UuidV7;

/**
 * Lays walls down as the ink has them, with their openings and columns: they join each other and what is traced already, and what is
 * traced already is left out. The rows get ids here; the same change sent again is answered with the first answer.
 */
final readonly class LayOperation implements Operation
{
    public static function name(): string
    {
        return 'lay';
    }

    private const LETTERS = ['door' => 'D', 'window' => 'W', 'opening' => 'O'];

    public function apply(Workspace $workspace, JsonValue $lay, Base $base): void
    {
        $lay->object(['storey', 'drawing', 'walls', 'openings', 'columns']);
        $row = $workspace->get(Storey::class, RowValues::uuid($lay->get('storey')));
        $storey = $row->id();
        $drawing = $lay->optional('drawing')?->text();
        [$there, $nodes] = self::traced($workspace, $storey);
        $walls = [];
        $asked = $lay->list('walls');
        foreach ($asked as $i => $wall) {
            $wall->object(['from', 'to', 'thickness', 'rise', 'buildUp']);
            $core = new CoreWall(
                '',
                new Point(...$wall->get('from')->pair()),
                new Point(...$wall->get('to')->pair()),
                $wall->get('thickness')->positive(CoreWall::THICKEST_MM),
                rise: Wall::possibleRise($wall->optional('rise')?->number() ?? 0.0, $wall->at.'/rise'),
            );
            if ($core->length() <= CoreWall::JOIN_MM) {
                throw Refusal::invalid('wall-of-no-length', 'A wall needs a length: its two ends lie on one spot.', $wall->at.'/to');
            }
            if (!Joining::isTraced($core, $there)) {
                $walls[$i] = $core;
            }
        }
        $order = array_keys($walls);
        $joined = Joining::of(array_values($walls), $there, $nodes);
        $names = [];
        foreach ($joined['nodes'] as $name => $point) {
            $names[$name] = new UuidV7();
            $workspace->add(
                Node::class,
                $names[$name],
                ['storey' => $storey->toRfc4122(), 'drawing' => $drawing, 'x' => $point->x, 'y' => $point->y],
                $lay->at.'/walls',
            );
        }
        $laid = [];
        foreach ($joined['walls'] as $k => [$from, $to]) {
            $i = $order[$k];
            $kind = $asked[$i]->optional('buildUp')?->text();
            $buildUp = null === $kind ? null : $workspace->get(BuildUp::class, RowValues::uuid($asked[$i]->get('buildUp')))->values();
            $id = new UuidV7();
            $workspace->add(Wall::class, $id, [
                'storey' => $storey->toRfc4122(), 'fromNode' => (
                    $names[$from]
                    ?? Uuid::fromString($from)
                )->toRfc4122(), 'toNode' => ($names[$to] ?? Uuid::fromString($to))->toRfc4122(),
                'thickness' => (float) (
                    $buildUp['thickness']
                    ?? $walls[$i]->thickness
                ), 'height' => $buildUp['height'] ?? null, 'enclosing' => $buildUp['enclosing'] ?? true,
                'line' => 'centre', 'evidence' => Evidence::Ink->value, 'rise' => $walls[$i]->rise, 'buildUp' => $kind,
            ], $asked[$i]->at);
            $laid[$i] = [$id, $walls[$i]->between($joined['nodes'][$from] ?? $nodes[$from], $joined['nodes'][$to] ?? $nodes[$to])];
        }
        $this->openings($workspace, $row->project(), $lay, $walls, $laid);
        foreach ($lay->list('columns') as $column) {
            $column->object(['x', 'y', 'width', 'depth']);
            $workspace->add(
                Column::class,
                new UuidV7(),
                [
                    'storey' => $storey->toRfc4122(),
                    'x' => $column->get('x')->number(),
                    'y' => $column->get('y')->number(),
                    'width' => $column->get('width')->positive(),
                    'depth' => $column->get('depth')->positive(),
                    'round' => false,
                ],
                $column->at,
            );
        }
    }

    /**
     * @param array<int, CoreWall> $walls as asked for
     * @param array<int, array{Uuid, CoreWall}> $laid as they lie now
     */
    private function openings(Workspace $workspace, Uuid $project, JsonValue $lay, array $walls, array $laid): void
    {
        $numbers = self::numbers($workspace, $project);
        foreach ($lay->list('openings') as $opening) {
            $opening->object(['wall', 'on', 'kind', 'offset', 'width', 'sill', 'height', 'leafAt', 'leafSide']);
            $kind = $opening->get('kind')->choice(OpeningKind::class);
            $letter = self::LETTERS[$kind->value];
            $width = $opening->get('width')->positive();
            if (null !== $opening->optional('on')) {
                $id = $workspace->get(Wall::class, RowValues::uuid($opening->get('on')))->id();
                $offset = $opening->get('offset')->notNegative();
            } else {
                $i = (int) $opening->get('wall')->notNegative();
                if (!isset($laid[$i])) {
                    continue; // its wall is traced already
                }
                [$id, $wall] = $laid[$i];
                $offset = Joining::offsetOn($wall, $walls[$i], $opening->get('offset')->number(), $width);
                if (null === $offset) {
                    continue;
                }
            }
            $n = ($numbers[$letter] ?? 0) + 1;
            $numbers[$letter] = $n;
            $workspace->add(Opening::class, new UuidV7(), [
                'wall' => $id->toRfc4122(), 'kind' => $kind->value, 'offset' => $offset, 'width' => $width,
                'sill' => $opening->get('sill')->notNegative(), 'height' => $opening->optional('height')?->positive(),
                'hand' => 'far' === $opening->optional('leafAt')?->text()
                    ? Hand::Right->value
                    : Hand::Left->value, 'swing' => $opening->optional('leafSide')?->text() ?? Hand::Left->value,
                'number' => $letter.str_pad((string) $n, 2, '0', \STR_PAD_LEFT), 'leaf' => Leaf::Single->value,
            ], $opening->at);
        }
    }

    /**
     * @return array{list<CoreWall>, array<string, Point>}
     */
    private static function traced(Workspace $workspace, Uuid $storey): array
    {
        $walls = $workspace->findBy(Wall::class, 'storey', $storey);
        $nodes = [];
        foreach ($workspace->findBy(Node::class, 'storey', $storey) as $node) {
            $nodes[$node->id()->toRfc4122()] = $node->at();
        }
        $core = array_map(
            static fn (Wall $w): CoreWall => Wall::core(
                $w->id()->toRfc4122(),
                $w->values(),
                $nodes[$w->fromNode()->toRfc4122()],
                $nodes[$w->toNode()->toRfc4122()],
            ),
            $walls,
        );

        return [$core, $nodes];
    }

    /** @return array<string, int> the highest number of each letter in use */
    private static function numbers(Workspace $workspace, Uuid $project): array
    {
        $numbers = [];
        foreach ($workspace->connection()->fetchFirstColumn(
            'SELECT number FROM opening WHERE project = ?',
            [$project->toBinary()],
        ) as $number) {
            if (1 === preg_match('/^([A-Z]+)(\d+)$/', Raw::text($number), $m)) {
                $numbers[$m[1]] = max($numbers[$m[1]] ?? 0, (int) $m[2]);
            }
        }

        return $numbers;
    }
}
