<?php

declare(strict_types=1);

namespace Plinth\Server\Ink;

use Doctrine\ORM\EntityManagerInterface;
use Plinth\Core\Exchange\Json\JsonValue;
use Plinth\Core\Geometry\PixelPoint;
use Plinth\Core\Ink\Reading\AlongGrid;
use Plinth\Server\Fit\KnownLength;
use Plinth\Server\Fit\Pick;
use Plinth\Server\Http\Needs;
use Plinth\Server\Http\Who;
use Plinth\Server\Project\ProjectAccess;
use Plinth\Server\Source\Drawing;
use Plinth\Server\Source\Page;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Uid\Uuid;

/** What is written on a drawing: shown as far as it is neither stated nor refused, refused. */
#[Route('/api/projects/{project}/drawings/{id}/readings')]
final readonly class ReadingsController
{
    /** A figure is stated when a known length has both its ends this near, px. */
    private const SAME_PX = 14.0;

    public function __construct(private ProjectAccess $access, private Findings $findings, private EntityManagerInterface $entities)
    {
    }

    #[Needs(Who::Reader)]
    #[Route('', methods: ['GET'])]
    public function show(Uuid $project, Uuid $id): Response
    {
        return $this->answer($this->access->row(Drawing::class, $project, $id));
    }

    /** Readings that are not wanted, by their ids; none of them takes all refusals back. */
    #[Needs(Who::Editor)]
    #[Route('/refuse', methods: ['POST'])]
    public function refuse(Uuid $project, Uuid $id, Request $request): Response
    {
        $drawing = $this->access->row(Drawing::class, $project, $id);
        $wanted = array_map(
            static fn (JsonValue $v): string => $v->text(),
            JsonValue::parse($request->getContent())->object(['readings'])->list('readings'),
        );
        $finding = $this->findings->of($drawing, FindingKind::Figures);
        $refused = [] === $wanted ? [] : $finding->refused ?? [];
        foreach ([...($finding->found['figures'] ?? []), ...($finding->found['rooms'] ?? [])] as $reading) {
            if (\in_array($reading['id'], $wanted, true)) {
                $refused[] = self::box($reading);
            }
        }
        $this->findings->refuse($drawing, FindingKind::Figures, $refused);

        return $this->answer($this->access->row(Drawing::class, $project, $id));
    }

    private function answer(Drawing $drawing): Response
    {
        $finding = $this->findings->of($drawing, FindingKind::Figures);
        $isWanted = static function (array $reading) use ($finding): bool {
            $box = self::box($reading);

            return [] === array_filter(
                $finding->refused ?? [],
                static fn (array $r): bool => abs($r[0] - $box[0]) < self::SAME_PX && abs($r[1] - $box[1]) < self::SAME_PX && abs($r[2] - $box[2]) < self::SAME_PX && abs($r[3] - $box[3]) < self::SAME_PX,
            );
        };
        $stated = null === $finding ? [] : $this->stated($drawing);
        $map = $this->findings->fit($drawing)->pixelToMm();
        $found = $finding->found['figures'] ?? [];
        $ends = array_map(static fn (array $figure): array => array_map(
            static fn (string $end): PixelPoint => new PixelPoint(...JsonValue::of($figure, 'figure')->get($end)->pair()),
            ['a', 'b'],
        ), $found);
        $left = array_values(array_filter(
            array_keys($found),
            static fn (int $i): bool => !self::isStated($ends[$i][0], $ends[$i][1], $stated) && $isWanted($found[$i]),
        ));
        $spans = array_map(static fn (int $i): array => [$map->toMm($ends[$i][0]), $map->toMm($ends[$i][1])], $left);
        $along = AlongGrid::of($spans);
        $slant = $this->slant($finding, $drawing);
        // How a photograph leans is told by all of its lines where they show it, else by those of its figures.
        $squares = 'lines' === $slant ? array_fill(0, \count($left), false) : AlongGrid::squaring($spans, $along);
        $figures = array_map(static fn (int $i, int $k): array => [
            ...$found[$i], 'along' => $along[$k], 'squares' => $squares[$k], 'spanMm' => $spans[$k][0]->distanceTo($spans[$k][1]),
        ], $left, array_keys($left));

        return new JsonResponse([
            'found' => null !== $finding, 'figures' => $figures, 'rooms' => array_values(array_filter($finding->found['rooms'] ?? [], $isWanted)), 'refused' => \count($finding->refused ?? []),
            'slant' => $slant,
        ]);
    }

    /** What says how a photographed drawing leans: all of its lines, or the figures alone; none where it lies flat. */
    private function slant(?Finding $finding, Drawing $drawing): string
    {
        if (true !== ($finding->found['drawing'][0]['photograph'] ?? null)) {
            return 'none';
        }
        $page = $this->entities->find(Page::class, $drawing->beside($drawing->page())->criteria());

        return true === $page?->leaning()?->isSlanted() ? 'lines' : 'figures';
    }

    /** @param list<array{float, float, float, float}> $stated */
    private static function isStated(PixelPoint $a, PixelPoint $b, array $stated): bool
    {
        foreach ($stated as [$px, $py, $qx, $qy]) {
            [$p, $q] = [new PixelPoint($px, $py), new PixelPoint($qx, $qy)];
            if (min(max($a->distanceTo($p), $b->distanceTo($q)), max($a->distanceTo($q), $b->distanceTo($p))) < self::SAME_PX) {
                return true;
            }
        }

        return false;
    }

    /**
     * @param array<mixed> $reading
     *
     * @return list<float>
     */
    private static function box(array $reading): array
    {
        return array_map(static fn (JsonValue $v): float => $v->number(), JsonValue::of($reading, 'reading')->get('box')->items());
    }

    /** @return list<array{float, float, float, float}> ends of the known lengths, px */
    private function stated(Drawing $drawing): array
    {
        $picks = [];
        foreach ($this->entities->getRepository(Pick::class)->findBy([
            'project' => $drawing->project(),
            'drawing' => $drawing->id(),
        ]) as $pick) {
            $values = $pick->values();
            $picks[$pick->id()->toRfc4122()] = [(float) $values['x'], (float) $values['y']];
        }
        $stated = [];
        foreach ($this->entities->getRepository(KnownLength::class)->findBy([
            'project' => $drawing->project(),
            'drawing' => $drawing->id(),
        ]) as $length) {
            [$a, $b] = [$picks[(string) $length->values()['a']] ?? null, $picks[(string) $length->values()['b']] ?? null];
            if (null !== $a && null !== $b) {
                $stated[] = [...$a, ...$b];
            }
        }

        return $stated;
    }
}
