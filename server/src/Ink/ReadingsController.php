<?php

declare(strict_types=1);

namespace Plinth\Server\Ink;

use Plinth\Core\Exchange\Json\JsonValue;
use Plinth\Server\Http\Needs;
use Plinth\Server\Http\Who;
use Plinth\Server\Project\ProjectAccess;
use Plinth\Server\Source\Drawing;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Uid\Uuid;

/** What is written on a drawing: shown as far as it is neither stated nor refused, refused. */
#[Route('/api/projects/{project}/drawings/{id}/readings')]
final readonly class ReadingsController
{
    public function __construct(private ProjectAccess $access, private Findings $findings, private ReadingsLeft $left)
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
                $refused[] = ReadingsLeft::box($reading);
            }
        }
        $this->findings->refuse($drawing, FindingKind::Figures, $refused);

        return $this->answer($this->access->row(Drawing::class, $project, $id));
    }

    private function answer(Drawing $drawing): Response
    {
        $finding = $this->findings->of($drawing, FindingKind::Figures);
        $unit = $this->access->project($drawing->project())->unit();

        return new JsonResponse([
            'found' => null !== $finding,
            'figures' => array_map(static fn (FigureLeft $f): array => $f->told($unit), $this->left->figures($drawing)),
            'rooms' => $this->left->rooms($drawing),
            'refused' => \count($finding->refused ?? []),
            'statedScale' => $finding->found['drawing'][0]['statedScale'] ?? null,
        ]);
    }
}
