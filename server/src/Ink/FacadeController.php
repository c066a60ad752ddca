<?php

declare(strict_types=1);

namespace Plinth\Server\Ink;

use Plinth\Core\Elevation\SideOpening;
use Plinth\Core\Exchange\Json\JsonValue;
use Plinth\Server\Elevation\OutlinesOfSide;
use Plinth\Server\Http\Needs;
use Plinth\Server\Http\Who;
use Plinth\Server\Project\ProjectAccess;
use Plinth\Server\Source\Drawing;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Uid\Uuid;

/** The openings that the picture of a side shows, as far as they are neither traced nor refused; refused. */
#[Route('/api/projects/{project}/drawings/{id}/facade')]
final readonly class FacadeController
{
    /** An opening is traced, or refused, where another one shares so much of both. */
    private const SAME = 0.5;

    public function __construct(private ProjectAccess $access, private Findings $findings, private OutlinesOfSide $outlines)
    {
    }

    #[Needs(Who::Reader)]
    #[Route('', methods: ['GET'])]
    public function show(Uuid $project, Uuid $id): Response
    {
        return $this->answer($this->access->row(Drawing::class, $project, $id));
    }

    /** Openings that are not wanted, by their ids; none of them takes all refusals back. */
    #[Needs(Who::Editor)]
    #[Route('/refuse', methods: ['POST'])]
    public function refuse(Uuid $project, Uuid $id, Request $request): Response
    {
        $drawing = $this->access->row(Drawing::class, $project, $id);
        $body = JsonValue::parse($request->getContent())->object(['openings']);
        $wanted = array_map(static fn (JsonValue $v): string => $v->text(), $body->list('openings'));
        $finding = $this->findings->of($drawing, FindingKind::Facade);
        $refused = [] === $wanted ? [] : $finding->refused ?? [];
        foreach ($finding->found['openings'] ?? [] as $opening) {
            if (\in_array($opening['id'], $wanted, true)) {
                $refused[] = self::onPage($opening);
            }
        }
        $this->findings->refuse($drawing, FindingKind::Facade, $refused);

        return $this->answer($this->access->row(Drawing::class, $project, $id));
    }

    private function answer(Drawing $drawing): Response
    {
        $side = $this->findings->sideOf($drawing);
        $finding = $this->findings->of($drawing, FindingKind::Facade);
        $traced = null === $finding ? [] : $this->outlines->of($drawing->beside($side));
        $openings = [];
        foreach ($finding->found['openings'] ?? [] as $opening) {
            $at = JsonValue::of($opening, 'opening');
            $one = self::placed($at);
            $isTraced = [] !== array_filter($traced, static fn (SideOpening $o): bool => $o->covers($one) > self::SAME);
            if ($isTraced || self::isRefused(self::onPage($opening), $finding->refused ?? [])) {
                continue;
            }
            unset($opening['onPage']);
            $openings[] = $opening;
        }

        return new JsonResponse(['found' => null !== $finding, 'refused' => \count($finding->refused ?? []), 'openings' => $openings]);
    }

    private static function placed(JsonValue $at): SideOpening
    {
        return new SideOpening(
            $at->get('id')->text(),
            $at->get('leftMm')->number(),
            $at->get('rightMm')->number(),
            $at->get('sillMm')->number(),
            $at->get('headMm')->number(),
        );
    }

    /**
     * @param array<string, mixed> $opening
     *
     * @return list<float> px of opposite corners
     */
    private static function onPage(array $opening): array
    {
        return array_map(static fn (JsonValue $v): float => $v->number(), JsonValue::of($opening, 'opening')->get('onPage')->items());
    }

    /**
     * @param list<float> $corners px
     * @param list<list<float>> $refused
     */
    private static function isRefused(array $corners, array $refused): bool
    {
        $own = self::between($corners);

        return [] !== array_filter($refused, static fn (array $other): bool => self::between($other)->covers($own) > self::SAME);
    }

    /** @param list<float> $corners px of two of them, x and y each */
    private static function between(array $corners): SideOpening
    {
        [$xs, $ys] = [[$corners[0], $corners[2]], [$corners[1], $corners[3]]];

        return new SideOpening('', min($xs), max($xs), min($ys), max($ys));
    }
}
