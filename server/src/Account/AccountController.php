<?php

declare(strict_types=1);

namespace Plinth\Server\Account;

use Doctrine\ORM\EntityManagerInterface;
use Plinth\Core\Exchange\Json\JsonValue;
use Plinth\Server\Http\ErrorAnswer;
use Plinth\Server\Http\Needs;
use Plinth\Server\Http\Refusal;
use Plinth\Server\Http\Who;
use Symfony\Bundle\SecurityBundle\Security;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Uid\Uuid;

final readonly class AccountController
{
    public const DEMO_EMAIL = 'demo@plinth.example';

    public function __construct(
        private Security $security,
        private Accounts $accounts,
        private SignIns $signIns,
        private SignInThrottle $throttle,
        private EntityManagerInterface $entities,
        private bool $demo,
    ) {
    }

    #[Needs(Who::Anybody)]
    #[Route('/api/account', methods: ['GET'])]
    public function account(): Response
    {
        $user = $this->security->getUser();

        return new JsonResponse([
            'account' => $user instanceof User ? self::describe($user) : null,
            'demo' => $this->demo,
        ]);
    }

    #[Needs(Who::Anybody)]
    #[Route('/api/sign-in', methods: ['POST'])]
    public function signIn(Request $request): Response
    {
        $body = JsonValue::parse($request->getContent())->object(['email', 'password']);
        $user = $this->accounts->by($body->get('email')->text());
        $refused = $this->judge(
            $user,
            $body->get('password')->text(PasswordRule::LONGEST),
            $request,
            'This address and password do not belong together. Check both and try again.',
        );
        if (null !== $refused) {
            return $refused;
        }
        \assert(null !== $user);
        $this->signIns->begin($user, $request);

        return new JsonResponse(['account' => self::describe($user)]);
    }

    #[Needs(Who::Anybody)]
    #[Route('/api/demo-sign-in', methods: ['POST'])]
    public function demoSignIn(Request $request): Response
    {
        $user = $this->demo ? $this->accounts->by(self::DEMO_EMAIL) : null;
        if (null === $user) {
            return ErrorAnswer::of(404, 'no-demo', 'This installation has no demo account. Sign in with your own.');
        }
        $this->signIns->begin($user, $request);

        return new JsonResponse(['account' => self::describe($user)]);
    }

    #[Needs(Who::Anybody)]
    #[Route('/api/sign-out', methods: ['POST'])]
    public function signOut(): Response
    {
        if ($this->security->getUser() instanceof User) {
            $this->signIns->endHere();
        }

        return new Response(status: 204);
    }

    /** Where one is signed in. */
    #[Needs(Who::SignedIn)]
    #[Route('/api/account/sessions', methods: ['GET'])]
    public function sessions(): Response
    {
        return new JsonResponse(['sessions' => $this->signIns->of($this->user())]);
    }

    #[Needs(Who::SignedIn)]
    #[Route('/api/account/sessions/{session}', methods: ['DELETE'])]
    public function endSession(Uuid $session): Response
    {
        $this->signIns->end($this->user(), $session);

        return new Response(status: 204);
    }

    /** Signs out everywhere, here too. */
    #[Needs(Who::SignedIn)]
    #[Route('/api/account/sessions', methods: ['DELETE'])]
    public function endSessions(): Response
    {
        $this->signIns->endAll($this->user(), false);
        $this->signIns->endHere();

        return new Response(status: 204);
    }

    /** A new password, by the present one; it signs out everywhere else. */
    #[Needs(Who::SignedIn)]
    #[Route('/api/account/password', methods: ['POST'])]
    public function changePassword(Request $request): Response
    {
        $body = JsonValue::parse($request->getContent())->object(['current', 'new']);
        $user = $this->user();
        $refused = $this->judge($user, $body->get('current')->text(PasswordRule::LONGEST), $request, 'This is not your present password.');
        if (null !== $refused) {
            return $refused;
        }
        try {
            $this->accounts->give($user, $body->get('new')->text(4 * PasswordRule::LONGEST));
        } catch (WeakPassword $e) {
            throw Refusal::invalid('weak-password', $e->getMessage(), 'new');
        }
        $this->entities->flush();
        $this->signIns->endAll($user, false);
        $this->signIns->begin($user, $request);

        return new Response(status: 204);
    }

    #[Needs(Who::Anybody)]
    #[Route('/api/health', methods: ['GET'])]
    public function health(): Response
    {
        return new JsonResponse(['well' => '1' === $this->entities->getConnection()->executeQuery("SELECT '1'")->fetchOne()]);
    }

    /** The answer to a wrong or hurried try; null where account and password belong together. */
    private function judge(?User $user, #[\SensitiveParameter] string $password, Request $request, string $words): ?Response
    {
        $sender = $request->getClientIp() ?? '';
        $wait = $this->throttle->wait($user, $sender);
        if ($wait > 0) {
            $answer = ErrorAnswer::of(429, 'too-many-tries', \sprintf('Too many wrong tries. Wait %d seconds and try again.', $wait));
            $answer->headers->set('Retry-After', (string) $wait);

            return $answer;
        }
        if (!$this->accounts->isTheirs($user, $password)) {
            $this->throttle->failed($user, $sender);

            return ErrorAnswer::of(401, 'wrong-credentials', $words, 'password');
        }
        \assert(null !== $user);
        $this->throttle->succeeded($user, $sender);

        return null;
    }

    private function user(): User
    {
        $user = $this->security->getUser();

        return $user instanceof User ? $user : throw Refusal::signedOut();
    }

    /** @return array{id: string, name: string, email: string} */
    private static function describe(User $user): array
    {
        return ['id' => $user->id()->toRfc4122(), 'name' => $user->name(), 'email' => $user->getUserIdentifier()];
    }
}
