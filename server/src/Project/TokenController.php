<?php

declare(strict_types=1);

namespace Plinth\Server\Project;

use Doctrine\ORM\EntityManagerInterface;
use Plinth\Core\Exchange\Json\JsonValue;
use Plinth\Server\Http\Needs;
use Plinth\Server\Http\Refusal;
use Plinth\Server\Http\Who;
use Psr\Clock\ClockInterface;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Uid\Uuid;
use Symfony\Component\Uid\UuidV7;

/** With what scripts read a project: its owner makes tokens and withdraws them. */
#[Route('/api/projects/{project}/tokens')]
final readonly class TokenController
{
    private const MOST = 50;
    private const BEGINS = 'plinth_';

    public function __construct(private EntityManagerInterface $entities, private ClockInterface $clock)
    {
    }

    #[Needs(Who::Owner)]
    #[Route('', methods: ['GET'])]
    public function list(Uuid $project): Response
    {
        $tokens = $this->entities->getRepository(ProjectToken::class)->findBy(['project' => $project], ['id' => 'ASC']);

        return new JsonResponse(['tokens' => array_map(static fn (ProjectToken $t): array => $t->describe(), $tokens)]);
    }

    /** Its words are told this once. */
    #[Needs(Who::Owner)]
    #[Route('', methods: ['POST'])]
    public function make(Uuid $project, Request $request): Response
    {
        $name = trim(JsonValue::parse($request->getContent())->object(['name'])->get('name')->text(80));
        if ('' === $name) {
            throw Refusal::invalid('no-name', 'Say what the token is for, so that it is known which to withdraw.', 'name');
        }
        if ($this->entities->getRepository(ProjectToken::class)->count(['project' => $project]) >= self::MOST) {
            throw Refusal::tooMuch(\sprintf('A project has at most %d tokens: withdraw one that is not needed any more.', self::MOST), 'name');
        }
        $words = self::BEGINS.bin2hex(random_bytes(24));
        $token = new ProjectToken(
            new UuidV7(),
            $project,
            $name,
            ProjectToken::hash($words),
            $this->clock->now()->setTimezone(new \DateTimeZone('UTC')),
        );
        $this->entities->persist($token);
        $this->entities->flush();

        return new JsonResponse(['token' => $token->describe(), 'words' => $words]);
    }

    #[Needs(Who::Owner)]
    #[Route('/{id}', methods: ['DELETE'])]
    public function withdraw(Uuid $project, Uuid $id): Response
    {
        $this->entities->remove(
            $this->entities->getRepository(ProjectToken::class)->findOneBy(['project' => $project, 'id' => $id]) ?? throw Refusal::notFound(),
        );
        $this->entities->flush();

        return new Response('', 204);
    }
}
