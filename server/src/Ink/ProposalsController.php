<?php

declare(strict_types=1);

namespace Plinth\Server\Ink;

use Doctrine\ORM\EntityManagerInterface;
use Plinth\Core\Exchange\Json\JsonValue;
use Plinth\Core\Geometry\PixelToMm;
use Plinth\Core\Geometry\Point;
use Plinth\Core\Plan\Editing\Joining;
use Plinth\Core\Plan\Editing\OpeningTraced;
use Plinth\Core\Plan\Model\Opening;
use Plinth\Core\Plan\Model\OpeningKind;
use Plinth\Core\Plan\Model\Wall as CoreWall;
use Plinth\Server\Http\Needs;
use Plinth\Server\Http\Who;
use Plinth\Server\Plan\PlanKeeper;
use Plinth\Server\Project\ProjectAccess;
use Plinth\Server\SettingOut\Column;
use Plinth\Server\Source\Drawing;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Uid\Uuid;

/**
 * What the ink of a drawing proposes: walls with their openings, openings in walls that are traced, columns; shown as far as it is
 * neither traced nor refused, refused.
 */
#[Route('/api/projects/{project}/drawings/{id}/proposals')]
final readonly class ProposalsController
{
    /** A wall is the refused one when its ends lie this near to that one's, px. */
    private const SAME_PX = 25.0;
    /** A column is traced where one stands this near, mm. */
    private const SAME_COLUMN_MM = 120.0;

    public function __construct(
        private ProjectAccess $access,
        private Findings $findings,
        private PlanKeeper $plans,
        private BuildUps $buildUps,
        private EntityManagerInterface $entities,
    ) {
    }

    #[Needs(Who::Reader)]
    #[Route('', methods: ['GET'])]
    public function show(Uuid $project, Uuid $id): Response
    {
        return $this->answer($this->access->row(Drawing::class, $project, $id));
    }

    /** Walls, and openings in traced walls, that are not wanted, by their ids; none of them takes all refusals back. */
    #[Needs(Who::Editor)]
    #[Route('/refuse', methods: ['POST'])]
    public function refuse(Uuid $project, Uuid $id, Request $request): Response
    {
        $drawing = $this->access->row(Drawing::class, $project, $id);
        $body = JsonValue::parse($request->getContent())->object(['things']);
        $wanted = array_map(static fn (JsonValue $v): string => $v->text(), $body->list('things'));
        $finding = $this->findings->of($drawing, FindingKind::Walls);
        $refused = [] === $wanted ? [] : $finding->refused ?? [];
        foreach ($finding->found['walls'] ?? [] as $wall) {
            if (\in_array($wall['id'], $wanted, true) && \is_array($wall['onPage'])) {
                $refused[] = array_values(array_map(static fn (mixed $v): float => is_numeric($v) ? (float) $v : 0.0, $wall['onPage']));
            }
        }
        $map = $this->findings->fit($drawing)->pixelToMm();
        foreach (null === $finding ? [] : $this->inTraced($drawing, $finding) as $opening) {
            if (\in_array($opening['id'], $wanted, true)) {
                $refused[] = self::onPage($opening['jambs'], $map);
            }
        }
        $this->findings->refuse($drawing, FindingKind::Walls, $refused);

        return $this->answer($this->access->row(Drawing::class, $project, $id));
    }

    private function answer(Drawing $drawing): Response
    {
        $storey = $this->findings->storeyOf($drawing);
        $finding = $this->findings->of($drawing, FindingKind::Walls);
        $answer = [
            'found' => null !== $finding,
            'walls' => [],
            'openings' => [],
            'inTraced' => [],
            'columns' => [],
            'refused' => \count($finding->refused ?? []),
        ];
        if (null === $finding) {
            return new JsonResponse($answer);
        }
        $there = $this->plans->load($drawing->beside($storey))->walls;
        $project = $drawing->project();
        $shown = [];
        foreach ($finding->found['walls'] ?? [] as $wall) {
            $at = JsonValue::of($wall, 'wall');
            $core = self::wall($at);
            if (self::isRefused(self::numbers($at->get('onPage')), $finding->refused) || Joining::isTraced($core, $there)) {
                continue;
            }
            unset($wall['onPage']);
            $shown[$at->get('id')->text()] = true;
            // What was found before anything stood apart is as sure as the rest, and straight.
            $answer['walls'][] = $wall + [
                'sure' => true,
                'rise' => 0.0,
                'buildUp' => $this->buildUps->likeliest($project, $core->thickness, $at->get('plusMinusMm')->number()),
            ];
        }
        foreach ($finding->found['openings'] ?? [] as $opening) {
            if (\is_string($opening['wall']) && isset($shown[$opening['wall']])) {
                $answer['openings'][] = $opening + ['sure' => true];
            }
        }
        $map = $this->findings->fit($drawing)->pixelToMm();
        foreach ($this->inTraced($drawing, $finding) as $opening) {
            if (!self::isRefused(self::onPage($opening['jambs'], $map), $finding->refused)) {
                unset($opening['jambs']);
                $answer['inTraced'][] = $opening;
            }
        }
        $columns = $this->entities->getRepository(Column::class)->findBy(['project' => $drawing->project(), 'storey' => $storey]);
        foreach ($finding->found['columns'] ?? [] as $column) {
            $at = JsonValue::of($column, 'column');
            $p = new Point($at->get('x')->number(), $at->get('y')->number());
            if ([] === array_filter($columns, static fn (Column $c): bool => $c->centre()->distanceTo($p) < self::SAME_COLUMN_MM)) {
                $answer['columns'][] = $column;
            }
        }

        return new JsonResponse($answer);
    }

    /**
     * Sure openings of the ink in walls that are traced already and have none there.
     *
     * @return list<array{id: string, wall: string, kind: string, offset: float, width: float, leafAt: string|null, leafSide: string|null, plusMinusMm: float, confidence: float, jambs: array{Point, Point}}>
     */
    private function inTraced(Drawing $drawing, Finding $finding): array
    {
        $traced = $this->plans->load($drawing->beside($this->findings->storeyOf($drawing)));
        $walls = [];
        foreach ($finding->found['walls'] ?? [] as $wall) {
            $at = JsonValue::of($wall, 'wall');
            $walls[$at->get('id')->text()] = self::wall($at);
        }
        $all = [];
        foreach ($finding->found['openings'] ?? [] as $row) {
            $at = JsonValue::of($row, 'opening');
            $wall = $walls[$at->get('wall')->text()] ?? null;
            if (null === $wall || false === ($row['sure'] ?? true)) {
                continue;
            }
            [$leafAt, $leafSide] = [$at->optional('leafAt')?->text(), $at->optional('leafSide')?->text()];
            $found = new Opening(
                $at->get('id')->text(),
                '',
                $at->get('kind')->choice(OpeningKind::class),
                $at->get('offset')->number(),
                $at->get('width')->number(),
                hand: 'far' === $leafAt ? 'right' : 'left',
                swing: $leafSide ?? 'left',
            );
            $there = OpeningTraced::in($found, $wall, $traced->walls, $traced->openings);
            if (null !== $there) {
                $all[] = [
                    'id' => $there->id,
                    'wall' => $there->wall,
                    'kind' => $there->kind->value,
                    'offset' => $there->offset,
                    'width' => $there->width,
                    'leafAt' => null === $leafAt ? null : ('right' === $there->hand ? 'far' : 'near'),
                    'leafSide' => null === $leafSide ? null : $there->swing,
                    'plusMinusMm' => $at->get('plusMinusMm')->number(),
                    'confidence' => $at->get('confidence')->number(),
                    'jambs' => [$wall->at($found->offset), $wall->at($found->offset + $found->width)],
                ];
            }
        }

        return $all;
    }

    private static function wall(JsonValue $at): CoreWall
    {
        $ends = array_map(static fn (string $end): Point => new Point(...$at->get($end)->pair()), ['from', 'to']);

        return new CoreWall('', $ends[0], $ends[1], $at->get('thickness')->number(), rise: $at->optional('rise')?->number() ?? 0.0);
    }

    /**
     * @param array{Point, Point} $ends
     *
     * @return list<float> px
     */
    private static function onPage(array $ends, PixelToMm $map): array
    {
        return array_merge(...array_map(static fn (Point $p): array => $map->toPixel($p)->toArray(), $ends));
    }

    /** @return list<float> */
    private static function numbers(JsonValue $onPage): array
    {
        return array_map(static fn (JsonValue $v): float => $v->number(), $onPage->items());
    }

    /**
     * @param list<float> $ends px
     * @param list<list<float>> $refused
     */
    private static function isRefused(array $ends, array $refused): bool
    {
        foreach ($refused as $r) {
            foreach ([[0, 1, 2, 3], [2, 3, 0, 1]] as [$a, $b, $c, $d]) {
                if (
                    hypot($ends[0] - $r[$a], $ends[1] - $r[$b]) < self::SAME_PX
                    && hypot($ends[2] - $r[$c], $ends[3] - $r[$d]) < self::SAME_PX
                ) {
                    return true;
                }
            }
        }

        return false;
    }
}
