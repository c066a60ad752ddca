<?php

declare(strict_types=1);

namespace Plinth\Server\Plan;

use Doctrine\ORM\EntityManagerInterface;
use Plinth\Core\Exchange\Json\JsonValue;
use Plinth\Core\Ink\Picks\Misfit;
use Plinth\Core\Plan\Model\Wall as CoreWall;
use Plinth\Server\Change\RowValues;
use Plinth\Server\Fit\DrawingFit;
use Plinth\Server\Http\Needs;
use Plinth\Server\Http\Refusal;
use Plinth\Server\Http\Who;
use Plinth\Server\Project\ProjectAccess;
use Plinth\Server\Project\Storey;
use Plinth\Server\SettingOut\Column;
use Plinth\Server\Source\Drawing;
use Plinth\Server\Source\InkOfPage;
use Plinth\Server\Source\InkOfPages;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Uid\Uuid;
use Symfony\Contracts\Cache\CacheInterface;

/** Two drawings, one building: where a drawing disagrees with the tracing of its storey or another one, or with another drawing; some at a time. */
#[Route('/api/projects/{project}/drawings/{id}/misfit')]
final readonly class MisfitController
{
    /** ± of 10 m of a drawing that nothing says the size of: 1 %. */
    private const GUESS = 100.0;
    /** walls and columns looked at in one request */
    private const AT_ONCE = 16;

    public function __construct(
        private ProjectAccess $access,
        private EntityManagerInterface $entities,
        private InkOfPages $ink,
        private PlanKeeper $plans,
        private CacheInterface $cache,
    ) {
    }

    #[Needs(Who::Reader)]
    #[Route('', methods: ['GET'])]
    public function show(Uuid $project, Uuid $id, Request $request): Response
    {
        $drawing = $this->access->row(Drawing::class, $project, $id);
        $against = $request->query->get('against');
        $other = null === $against ? null : $this->access->row(
            Drawing::class,
            $project,
            RowValues::uuid(JsonValue::of($against, 'against')),
        );
        $lies = $drawing->storey() ?? throw Refusal::conflict(
            'not-a-plan',
            'Only drawings that lie on a storey can be held against its walls.',
            'drawing',
        );
        // Held against another storey as well: what stands on each other is drawn on both.
        $storey = $request->query->has('storey')
            ? $this->access->row(Storey::class, $project, RowValues::uuid(JsonValue::of($request->query->get('storey'), 'storey')))->id()
            : $lies;
        $of = $this->looker($drawing);
        $ofOther = null === $other ? null : $this->looker($other);
        $all = [
            ...$this->plans->load($drawing->beside($storey))->walls,
            ...$this->entities->getRepository(Column::class)->findBy(
                ['project' => $drawing->project(), 'storey' => $storey],
                ['id' => 'ASC'],
            ),
        ];
        $from = max(0, $request->query->getInt('from'));
        $things = [];
        foreach (\array_slice($all, $from, self::AT_ONCE) as $thing) {
            $misfit = $this->cache->get(
                'misfit.'.self::basis($thing, $of, $ofOther),
                static fn (): ?Misfit => self::both($thing, $of, $ofOther),
            );
            $things[] = self::row(
                $thing instanceof CoreWall ? 'wall' : 'column',
                $thing instanceof CoreWall ? $thing->id : $thing->id()->toRfc4122(),
                $misfit,
                $of,
                $ofOther,
            );
        }
        $next = $from + self::AT_ONCE;

        return new JsonResponse(['things' => $things, 'of' => \count($all), 'next' => $next < \count($all) ? $next : null]);
    }

    /** @return array{InkOfPage, DrawingFit} */
    private function looker(Drawing $drawing): array
    {
        return [
            $this->ink->of($drawing) ?? throw Refusal::conflict(
                'not-ready',
                'This page is still being read: its ink cannot be looked at yet.',
            ),
            $this->entities->find(DrawingFit::class, $drawing->key()->criteria()) ?? throw Refusal::notFound(),
        ];
    }

    /**
     * All that a misfit follows from: another wall is moved, and what was found of this one stands.
     *
     * @param array{InkOfPage, DrawingFit} $of
     * @param array{InkOfPage, DrawingFit}|null $ofOther
     */
    private static function basis(CoreWall|Column $thing, array $of, ?array $ofOther): string
    {
        $basis = [
            $thing instanceof CoreWall ? [$thing->from->toArray(), $thing->to->toArray(), $thing->thickness] : $thing->centre()->toArray(),
        ];
        foreach (null === $ofOther ? [$of] : [$of, $ofOther] as [$ink, $fit]) {
            array_push($basis, $ink->version, $fit->pixelToMm()->matrix(), $fit->pixelToMm()->lens);
        }

        return sha1(serialize($basis));
    }

    /**
     * @param array{InkOfPage, DrawingFit} $of
     * @param array{InkOfPage, DrawingFit}|null $ofOther
     */
    private static function both(CoreWall|Column $thing, array $of, ?array $ofOther): ?Misfit
    {
        $misfit = self::look($thing, ...$of);
        $other = null === $ofOther || null === $misfit ? null : self::look($thing, ...$ofOther);

        return null === $ofOther ? $misfit : (null === $other ? null : $misfit->against($other));
    }

    private static function look(CoreWall|Column $thing, InkOfPage $ink, DrawingFit $fit): ?Misfit
    {
        return $thing instanceof CoreWall
            ? Misfit::ofWall($ink, $fit->pixelToMm(), $thing->from, $thing->to, $thing->thickness)
            : Misfit::ofColumn($ink, $fit->pixelToMm(), $thing->centre());
    }

    /**
     * @param array{InkOfPage, DrawingFit} $of
     * @param array{InkOfPage, DrawingFit}|null $ofOther
     *
     * @return array{type: string, id: string, mm: float|null, x: float, y: float, plusMinusMm: float, thickerMm: float|null}
     */
    private static function row(string $type, string $id, ?Misfit $misfit, array $of, ?array $ofOther): array
    {
        // What the fits leave open over ten metres, and the ink.
        $fits = hypot(
            $of[1]->plusMinusMmPer10m() ?? self::GUESS,
            null === $ofOther ? 0.0 : $ofOther[1]->plusMinusMmPer10m() ?? self::GUESS,
        );

        return [
            'type' => $type, 'id' => $id, 'mm' => $misfit?->mm(), 'x' => $misfit->by->x ?? 0.0, 'y' => $misfit->by->y ?? 0.0,
            'plusMinusMm' => null === $misfit ? 0.0 : hypot($fits, 2.0 * $misfit->sigmaMm), 'thickerMm' => $misfit?->thickerMm,
        ];
    }
}
