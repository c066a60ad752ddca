<?php

declare(strict_types=1);

namespace Plinth\Server\Exchange;

use Doctrine\ORM\EntityManagerInterface;
use Plinth\Core\Exchange\PlanDocument\PlanReader;
use Plinth\Core\Exchange\SheetsDocument\SheetsReader;
use Plinth\Server\Change\Kinds;
use Plinth\Server\Http\Needs;
use Plinth\Server\Http\Refusal;
use Plinth\Server\Http\Who;
use Plinth\Server\Project\ProjectAccess;
use Plinth\Server\Project\Storey;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Uid\Uuid;

/** A plan document as what would add it to a project: looked at, and taken as a change or not at all. */
final readonly class DocumentController
{
    private const MOST_BYTES = 8_000_000;

    public function __construct(private ProjectAccess $access, private EntityManagerInterface $entities, private Kinds $kinds)
    {
    }

    #[Needs(Who::Editor)]
    #[Route('/api/projects/{project}/document', methods: ['POST'])]
    public function read(Uuid $project, Request $request): Response
    {
        $this->access->project($project);
        $json = $request->getContent();
        if (\strlen($json) > self::MOST_BYTES) {
            throw Refusal::tooLarge(\sprintf('A plan document holds at most %d MB.', self::MOST_BYTES / 1e6), 'document');
        }
        $plan = PlanReader::read($json);
        $sheets = SheetsReader::read($json);
        $blank = $this->blank($project);
        // Things are called as in the document where nothing here could be called so.
        [$operations, $left] = PlanRows::documented($plan, $sheets->sheets, $sheets->sides, null !== $blank);
        if (null !== $blank && [] !== $plan->storeys) {
            $operations[] = ['do' => 'removeMany', 'type' => 'storey', 'ids' => [$blank->id()->toRfc4122()]];
        }

        return new JsonResponse([
            'operations' => $operations,
            'left' => $left,
            'storeys' => \count($plan->storeys),
            'walls' => array_sum(array_map(static fn ($s): int => \count($s->walls), $plan->storeys)),
        ]);
    }

    /** The one storey of a project in which nothing has been done yet: it gives way to those of the document. */
    private function blank(Uuid $project): ?Storey
    {
        $storeys = $this->entities->getRepository(Storey::class)->findBy(['project' => $project], limit: 2);
        if (1 !== \count($storeys)) {
            return null;
        }
        foreach ($this->kinds->referrers(Storey::class) as [$class, $refers]) {
            if ($this->entities->getRepository($class)->count(['project' => $project, $refers->field => $storeys[0]->id()]) > 0) {
                return null;
            }
        }

        return $storeys[0];
    }
}
