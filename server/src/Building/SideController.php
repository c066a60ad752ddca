<?php

declare(strict_types=1);

namespace Plinth\Server\Building;

use Plinth\Core\Bodies\BodyKind;
use Plinth\Core\Elevation\SideLine;
use Plinth\Core\Elevation\SideMatch;
use Plinth\Core\Elevation\SideOpening;
use Plinth\Core\Elevation\SideOpenings;
use Plinth\Core\Exchange\BodiesDocument\ViewWriter;
use Plinth\Core\Exchange\PlanDocument\PlanWriter;
use Plinth\Core\Plan\Model\Plan;
use Plinth\Server\Elevation\OutlinesOfSide;
use Plinth\Server\Elevation\StreetPart;
use Plinth\Server\Http\Needs;
use Plinth\Server\Http\Who;
use Plinth\Server\Project\ProjectAccess;
use Plinth\Server\Project\Side;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Uid\Uuid;
use Symfony\Contracts\Cache\CacheInterface;

/** The building as a side or a section shows it, and how its openings lie against what was traced there. */
#[Route('/api/projects/{project}/sides/{id}')]
final readonly class SideController
{
    /** What shows that an opening is seen. */
    private const FILLS = [BodyKind::Frame->value, BodyKind::Leaf->value, BodyKind::Pane->value];

    public function __construct(
        private ProjectAccess $access,
        private BuildingPlan $building,
        private OutlinesOfSide $outlines,
        private CacheInterface $cache,
        private SeenSides $seen,
    ) {
    }

    #[Needs(Who::Reader)]
    #[Route('/view', methods: ['GET'])]
    public function view(Uuid $project, Uuid $id, Request $request): Response
    {
        $side = $this->access->row(Side::class, $project, $id);
        $withHidden = $request->query->getBoolean('hidden');

        return new JsonResponse($this->drawn($side, $this->building->of($project), $withHidden), json: true);
    }

    /** Openings that are seen from a side, each with what was traced of it; then those that the plan lacks. */
    #[Needs(Who::Reader)]
    #[Route('/openings', methods: ['GET'])]
    public function openings(Uuid $project, Uuid $id): Response
    {
        $side = $this->access->row(Side::class, $project, $id);
        $plan = $this->building->of($project);
        $line = SideLine::between(...$side->line());
        /** @var array{lines: list<array{kind: string, id: string}>} $drawn */
        $drawn = json_decode($this->drawn($side, $plan), true, 512, \JSON_THROW_ON_ERROR);
        $seen = [];
        foreach ($drawn['lines'] as $of) {
            if (\in_array($of['kind'], self::FILLS, true)) {
                $seen[$of['id']] = true;
            }
        }
        $stands = SideOpenings::of($plan, $line, array_map(strval(...), array_keys($seen)));
        $traced = $this->outlines->of($side->key());
        $worst = array_map(static fn (SideOpening $o): ?float => $o->plusMinusPer10m, $traced);

        return new JsonResponse([
            'plusMinusMmPer10m' => [] === $worst || \in_array(null, $worst, true) ? null : max($worst),
            // What is only cut through is in no wall that is looked at.
            'matches' => array_map(
                self::told(...),
                SideMatch::of($stands->openings, $traced, true === $side->values()['cut'] ? [] : $stands->walls),
            ),
        ]);
    }

    /** @return array<string, mixed> */
    private static function told(SideMatch $match): array
    {
        $told = static fn (?SideOpening $o): ?array => null === $o ? null : [
            'id' => $o->id, 'leftMm' => round($o->left, 2), 'rightMm' => round($o->right, 2), 'sillMm' => round($o->sill, 2), 'headMm' => round($o->head, 2),
        ];
        $traced = $match->traced;
        $wall = $match->wall ?? $match->planned?->in;
        $floor = $match->planned->floor ?? $wall->floor ?? 0.0;

        return [
            'opening' => $told($match->planned),
            'floorMm' => $floor,
            'plusMinusMm' => $traced?->plusMinus($floor),
            'outline' => $told($traced),
            'wall' => null === $wall || null === $traced ? null : [
                'id' => $wall->wall->id, 'offsetMm' => round($wall->offset($traced), 2), 'widthMm' => round($wall->width($traced), 2),
            ],
        ];
    }

    /** Kept under a hash of all that it follows from. */
    private function drawn(Side $side, Plan $plan, bool $withHidden = false): string
    {
        $parts = array_map(static fn (StreetPart $p): array => $p->values(), $this->seen->parts($side));
        $sides = array_map(fn (array $p): array => $this->access->row(Side::class, $side->project(), Uuid::fromString((string) $p['side']))->values(), $parts);
        if ([] === $parts) {
            $side->looks(); // Without a line there is nothing to be worked out.
        }
        $key = hash('xxh128', json_encode([PlanWriter::document($plan), $side->values(), $parts, $sides, $withHidden], \JSON_THROW_ON_ERROR));

        return $this->cache->get("view.$key", fn (): string => json_encode(ViewWriter::view($this->seen->of($side, $plan, $withHidden)), \JSON_THROW_ON_ERROR));
    }
}
